import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { show } from '../../testing/screen.tsx';
import { DateInput, DayInput } from './figures.tsx';

afterEach(cleanup);

describe('a date in figures alone', () => {
  test.each([
    ['in a shop that writes the day first', true, '12 Sep 2026', '2026-09-12'],
    ['in one that writes the month first', false, '9 Dec 2026', '2026-12-09'],
  ])('is read by the shop’s order: %s', async (_, dayFirst, words, edtf) => {
    const heard: (string | null)[] = [];
    show(<DateInput label="When" value={null} onChange={(read) => heard.push(read)} />, { dayFirst });
    await userEvent.type(screen.getByLabelText('When'), '12/09/2026');
    screen.getByText(`Understood as ${words}`);
    expect(heard.at(-1)).toBe(edtf);
  });
  test('that is kept already stands in words; a span keeps its notation', () => {
    show(
      <>
        <DateInput label="Bought" value="2025-11-30" onChange={() => undefined} />
        <DateInput label="Made" value="1934~/1936" onChange={() => undefined} />
      </>,
    );
    expect((screen.getByLabelText('Bought') as HTMLInputElement).value).toBe('30 Nov 2025');
    expect((screen.getByLabelText('Made') as HTMLInputElement).value).toBe('1934~/1936');
  });
  test('that only one order makes a day of is that day', async () => {
    show(<DateInput label="When" value={null} onChange={() => undefined} />, { dayFirst: false });
    await userEvent.type(screen.getByLabelText('When'), '25/09/2026');
    screen.getByText('Understood as 25 Sep 2026');
  });
});

describe('a day', () => {
  const ask = (edge?: 'first' | 'last') => {
    const heard: [string, boolean][] = [];
    show(
      <DayInput
        label="From"
        value="2026-11-02"
        {...(edge && { edge })}
        onChange={(day, understood) => heard.push([day, understood])}
      />,
    );
    return { heard, field: screen.getByLabelText('From') };
  };
  const say = async (field: HTMLElement, text: string) => {
    await userEvent.clear(field);
    await userEvent.type(field, text);
  };
  test('stands as every day does, and is heard as the calendar writes it', async () => {
    const { heard, field } = ask();
    expect((field as HTMLInputElement).value).toBe('2 Nov 2026');
    await say(field, '12/09/2026');
    screen.getByText('Understood as 12 Sep 2026');
    expect(heard.at(-1)).toEqual(['2026-09-12', true]);
  });
  test('is asked for where a longer time was said', async () => {
    const { heard, field } = ask();
    await say(field, 'September 2026');
    screen.getByText('Which day? Sep 2026 is longer than one.');
    expect(heard.at(-1)?.[1]).toBe(false);
  });
  test.each([
    ['first', '2025-01-01'],
    ['last', '2025-12-31'],
  ] as const)('of a year is its %s where one asks from or to', async (edge, day) => {
    const { heard, field } = ask(edge);
    await say(field, '2025');
    expect(heard.at(-1)).toEqual([day, true]);
  });
  test('is none where the line is empty', async () => {
    const { heard, field } = ask();
    await userEvent.clear(field);
    expect(heard.at(-1)).toEqual(['', true]);
  });
});
