import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { PageTitle } from './PageTitle.tsx';

afterEach(cleanup);

describe('the name of the window', () => {
  test('is the page’s heading, and follows it', () => {
    const { rerender } = render(<PageTitle>Lots</PageTitle>);
    expect(document.title).toBe('Lots · Jutbank');
    rerender(<PageTitle>Box lot, Tollgate Rooms</PageTitle>);
    expect(document.title).toBe('Box lot, Tollgate Rooms · Jutbank');
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Box lot, Tollgate Rooms');
  });
  test('says more where the heading alone would not tell the page from others', () => {
    render(<PageTitle name="HQ-0003 Rigger No. 2: Bench">Rigger No. 2, first form</PageTitle>);
    expect(document.title).toBe('HQ-0003 Rigger No. 2: Bench · Jutbank');
  });
  test('is the program’s where nothing has been typed yet', () => {
    render(<PageTitle name="">{''}</PageTitle>);
    expect(document.title).toBe('Jutbank');
  });
});
