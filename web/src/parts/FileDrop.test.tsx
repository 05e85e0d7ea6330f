import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { FileDrop } from './FileDrop.tsx';

afterEach(cleanup);

const picture = new File(['x'], 'tang.jpg', { type: 'image/jpeg' });

describe('pictures', () => {
  const drop = () => {
    const onFiles = jest.fn();
    render(
      <FileDrop label="Choose pictures" onFiles={onFiles}>
        Drop them here
      </FileDrop>,
    );
    return { onFiles, field: screen.getByRole('button'), chooser: screen.getByLabelText('Choose pictures') };
  };
  test('are taken when they are dropped, and the field shows that they will be', () => {
    const { onFiles, field } = drop();
    fireEvent.dragOver(field);
    expect(field.className).toBe('drop over');
    fireEvent.drop(field, { dataTransfer: { files: [picture] } });
    expect(field.className).toBe('drop');
    expect(onFiles).toHaveBeenCalledWith([picture]);
  });
  test('are not taken when the hand leaves again', () => {
    const { onFiles, field } = drop();
    fireEvent.dragOver(field);
    fireEvent.dragLeave(field);
    expect(field.className).toBe('drop');
    expect(onFiles).not.toHaveBeenCalled();
  });
  test('are taken when they are chosen; the same one may be chosen again', () => {
    const { onFiles, chooser } = drop();
    fireEvent.change(chooser, { target: { files: [picture] } });
    expect(onFiles).toHaveBeenCalledWith([picture]);
    expect((chooser as HTMLInputElement).value).toBe('');
  });
});
