/** How a pattern is drawn where its forms say nothing else: picking a style is picking a drawing. */
import { ButtonBase } from '@mui/material';
import { useMemo } from 'react';
import {
  anyPattern,
  drawsOn,
  recipeOfRecords,
  SLOT_NAMES,
  slotsOf,
  stylesOf,
  type DrawingRecipe,
  type SlotName,
} from '@jutbank/core/drawing';
import type { Pattern, PatternDrawing } from '@jutbank/core/reference';
import { optionsOf, Select } from '../../parts/fields/choices.tsx';
import { NumberInput, SizeInput } from '../../parts/fields/figures.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { LinesInput, TextInput } from '../../parts/fields/TextInput.tsx';
import { Roving } from '../../parts/Roving.tsx';
import { inWords, sentence } from '../../parts/words.ts';
import { ChoiceDrawing, useStyleDrawings } from '../ChoiceDrawing.tsx';
import { Section, type FormProps } from './formParts.tsx';
import { outlineIn, outlineLines } from './outline.ts';

type Blade = NonNullable<PatternDrawing['blades']>[number];

export function DrawingForm({ value, set, words }: FormProps<Pattern>) {
  const construction = value.construction ?? 'slipjoint';
  const drawing: PatternDrawing = value.drawing ?? {};
  const put = (patch: Partial<PatternDrawing>) => set({ drawing: { ...drawing, ...patch } });
  const { measures, features: varieties, drawing: drawn, outline } = value;
  // a name that is typed draws nothing anew
  const recipe = useMemo(
    () =>
      recipeOfRecords({
        pattern: { ...anyPattern(construction), measures, features: varieties, drawing: drawn, outline },
        features: words.features,
      }),
    [construction, measures, varieties, drawn, outline, words.features],
  );
  // what a feature tells of each form is not the pattern's to say
  const told = new Set(words.features.flatMap((f) => slotsOf(f, construction)));
  const slots = SLOT_NAMES.filter(
    (slot) => slot !== 'blade-form' && drawsOn(slot, construction) && !told.has(slot),
  );
  const style = (slot: SlotName) =>
    (slot === 'profile' ? drawing.handle?.profile : drawing.styles?.[slot]) ?? undefined;
  return (
    <Section title="How it is drawn">
      <SizeInput
        label="Handle height"
        at="/drawing/handle/height"
        dimension="length"
        value={drawing.handle?.height ?? undefined}
        onChange={(height) => put({ handle: { ...drawing.handle, height: height ?? null } })}
      />
      {construction !== 'fixed' && construction !== 'bayonet' && construction !== 'balisong' && (
        <LinesInput
          label="Handle outline"
          why="From the mark side, in mm, a point to a line: along from the butt, then down from the back. It replaces the profile."
          at="/drawing/handle/outline"
          mono
          rows={3}
          maxRows={6}
          value={outlineLines(drawing.handle?.outline)}
          onChange={(lines) => put({ handle: { ...drawing.handle, outline: outlineIn(lines) ?? null } })}
        />
      )}
      <Blades drawing={drawing} put={put} />
      {slots.map((slot) => (
        <StylePicker
          key={slot}
          slot={slot}
          recipe={recipe}
          value={style(slot)}
          onPick={(picked) =>
            slot === 'profile'
              ? put({ handle: { ...drawing.handle, profile: picked ?? null } })
              : put({ styles: { ...drawing.styles, [slot]: picked ?? null } })
          }
        />
      ))}
    </Section>
  );
}

/** The styles of one slot, each drawn; pressing the one that is taken leaves it open again. */
export function StylePicker({
  slot,
  recipe,
  value,
  onPick,
}: {
  slot: SlotName;
  recipe: DrawingRecipe;
  value: string | undefined;
  onPick: (style: string | undefined) => void;
}) {
  const styles = useMemo(() => stylesOf(slot, recipe.construction), [slot, recipe.construction]);
  const drawings = useStyleDrawings(slot, styles, recipe);
  return (
    <div className="style-picker">
      <span className="soft">{sentence(slot)}</span>
      <Roving className="chips" role="group" aria-label={sentence(slot)}>
        {styles.map((style) => {
          const drawing = drawings.get(style);
          return (
            <ButtonBase
              key={style}
              className={drawing ? 'chip drawn' : 'chip'}
              aria-pressed={style === value}
              onClick={() => onPick(style === value ? undefined : style)}
            >
              {drawing && <ChoiceDrawing drawing={drawing} />}
              {inWords(style)}
            </ButtonBase>
          );
        })}
      </Roving>
    </div>
  );
}

function Blades({
  drawing,
  put,
}: {
  drawing: PatternDrawing;
  put: (patch: Partial<PatternDrawing>) => void;
}) {
  return (
    <Rows
      title="Blades"
      why="From the mark side, the nearest first. A length that is not told is usual for its place."
      items={drawing.blades ?? []}
      fresh={(): Blade => ({ role: '', end: 'front', shape: 'spear', layer: drawing.blades?.length ?? 0 })}
      add="blade"
      onChange={(blades) => put({ blades })}
    >
      {(blade, patch, i) => (
        <div className="across">
          <TextInput
            label={`Blade ${i + 1}`}
            at={`/drawing/blades/${i}/role`}
            value={blade.role}
            onChange={(role) => patch({ role })}
          />
          <Select
            label="End"
            at={`/drawing/blades/${i}/end`}
            value={blade.end ?? undefined}
            options={optionsOf(['front', 'rear'])}
            onChange={(end) => patch({ end: end ?? null })}
          />
          <Select
            label="Form"
            at={`/drawing/blades/${i}/shape`}
            value={blade.shape ?? undefined}
            none="Not told"
            options={optionsOf(stylesOf('blade-form'))}
            onChange={(shape) => patch({ shape: shape ?? null })}
          />
          <NumberInput
            label="Layer"
            at={`/drawing/blades/${i}/layer`}
            value={blade.layer ?? undefined}
            onChange={(layer) => patch({ layer: layer ?? null })}
          />
        </div>
      )}
    </Rows>
  );
}
