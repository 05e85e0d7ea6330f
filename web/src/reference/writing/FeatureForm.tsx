/** The form of a feature: what can be seen or measured of a piece. */
import { MultiSelect, Select, optionsOf } from '../../parts/fields/choices.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { drawsOn, SLOT_NAMES, stylesOf } from '@jutbank/core/drawing';
import {
  CONSTRUCTIONS,
  EFFORTS,
  SWAP_CLASSES,
  type Construction,
  type Feature,
  type FeatureValue,
} from '@jutbank/core/reference';
import { CONSTRUCTION_WORDS, inWords, sentence } from '../../parts/words.ts';
import { given, type FormProps } from './formParts.tsx';
import { slugOf } from './draft.ts';

/** Slots and styles as one choice: `bolster grooved`. */
const drawable = (constructions: readonly Construction[]) =>
  SLOT_NAMES.filter((slot) => constructions.some((c) => drawsOn(slot, c))).flatMap((slot) =>
    stylesOf(slot).map((style) => ({
      value: `${slot} ${style}`,
      label: `${sentence(slot)}: ${inWords(style)}`,
    })),
  );
const drawnAs = ({ draws }: FeatureValue) =>
  Object.entries(draws ?? {}).flatMap(([slot, style]) => (style == null ? [] : [`${slot} ${style}`]));

export function FeatureForm({ value, set }: FormProps<Feature>) {
  const drawings = drawable(value.constructions?.length ? value.constructions : CONSTRUCTIONS);
  return (
    <>
      <TextInput
        label="Label"
        at="/label"
        why="What one looks at: “Lanyard fitting”."
        value={value.label}
        onChange={(label) => set({ label })}
      />
      <TextInput
        label="Part"
        why="Features of one part move together when the part is exchanged."
        at="/part"
        value={value.part}
        onChange={(part) => set({ part })}
      />
      <Select
        label="Kind"
        why="A choice among values, a count, a size, or free text."
        at="/kind"
        value={value.kind}
        options={optionsOf(['category', 'count', 'measure', 'text'])}
        onChange={(kind) => set(given('kind', kind) as Partial<Feature>)}
      />
      {value.kind === 'category' && (
        <Rows
          title="Values"
          why="What can be seen, as the bench offers it under the number keys."
          items={value.values ?? []}
          fresh={(): FeatureValue => ({ id: '', label: '' })}
          add="value"
          onChange={(values) => set({ values })}
        >
          {(item, patch, i) => (
            <>
              <TextInput
                label={`Value ${i + 1}`}
                at={`/values/${i}`}
                value={item.label}
                onChange={(label) =>
                  // an id once saved is what others refer to: it follows the label only while it is new
                  patch(
                    item.id === '' || item.id === slugOf(item.label)
                      ? { label, id: slugOf(label) }
                      : { label },
                  )
                }
              />
              <MultiSelect
                label="Material"
                at={`/values/${i}/vapour`}
                value={item.vapour ? ['vapour'] : []}
                options={[{ value: 'vapour', label: 'gives off vapour: keep it apart' }]}
                onChange={(chosen) => patch({ vapour: chosen === undefined ? undefined : true })}
              />
              <MultiSelect
                label="Drawn as"
                why="Not told: as its words say, “grooved” of a bolster as grooves."
                at={`/values/${i}/draws`}
                value={drawnAs(item)}
                options={drawings}
                onChange={(chosen) =>
                  patch({
                    draws:
                      chosen && Object.fromEntries(chosen.map((pair) => pair.split(' ') as [string, string])),
                  })
                }
              />
            </>
          )}
        </Rows>
      )}
      {value.kind === 'measure' && (
        <>
          <Select
            label="Unit"
            at="/unit"
            value={value.unit}
            options={[
              { value: 'mm', label: 'Length, in mm' },
              { value: 'g', label: 'Mass, in g' },
              { value: 'deg', label: 'Angle, in degrees' },
            ]}
            onChange={(unit) => set(given('unit', unit) as Partial<Feature>)}
          />
          <Select
            label="Wear"
            why="A blade loses length to sharpening: a short one may still be right, a long one not."
            at="/wear"
            none="None"
            value={value.wear}
            options={optionsOf(['shrinks', 'grows'])}
            onChange={(wear) => set(given('wear', wear) as Partial<Feature>)}
          />
        </>
      )}
      <Select
        label="Exchanged"
        why="How easily the part is exchanged: decides whether a misfit means another variant or another part."
        at="/swap"
        none="Hard (if not told)"
        value={value.swap}
        options={optionsOf(SWAP_CLASSES)}
        onChange={(swap) => set(given('swap', swap) as Partial<Feature>)}
      />
      <Select
        label="Effort"
        why="Puts it in bench order: glance before open, loupe before gauge, strip last."
        at="/effort"
        none="Glance (if not told)"
        value={value.effort}
        options={optionsOf(EFFORTS)}
        onChange={(effort) => set(given('effort', effort) as Partial<Feature>)}
      />
      <MultiSelect
        label="Applies to"
        why="None chosen: everywhere. A feature a construction cannot have speaks against it."
        at="/constructions"
        value={value.constructions}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c])}
        onChange={(constructions) => set(given('constructions', constructions) as Partial<Feature>)}
      />
      <TextInput
        label="Question"
        why="What the bench asks, for somebody who has never seen one."
        at="/ask"
        rows={2}
        value={value.ask}
        onChange={(ask) => set(given('ask', ask))}
      />
    </>
  );
}
