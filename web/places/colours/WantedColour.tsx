import type { ColourLookOf } from '../../../contract/looks.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { hexOf } from '../../../core/colour/light.ts';
import { dateText } from '../../parts/dates.ts';
import { Field, SelectField } from '../../parts/Fields.tsx';

interface Props {
  hex: string;
  recipes: RecipeRow[];
  /** Pours and cups that were looked at. */
  looks: ColourLookOf[];
  /** @param thicknessMm what it was seen in, where that is known. */
  onTake(hex: string, thicknessMm?: number): void;
}

/** What is wanted: a colour, as a recipe looks, or as a pour came out. */
export function WantedColour({ hex, recipes, looks, onTake }: Props) {
  return (
    <>
      <Field label="Wanted" className="w-24 pb-5">
        {(ids) => (
          <input
            {...ids}
            type="color"
            value={hex}
            onChange={(event) => onTake(event.target.value)}
            className="w-24 h-12 cursor-pointer"
          />
        )}
      </Field>
      <SelectField<string>
        label="or as it looks in"
        value=""
        options={[{ value: '', label: 'a recipe …' }, ...recipes.map((one) => ({ value: one.hex, label: one.name }))]}
        onChange={(next) => next && onTake(next)}
        className="w-52"
      />
      {looks.length > 0 && (
        <SelectField<string>
          label="or a pour that came out"
          value=""
          options={[
            { value: '', label: 'a look …' },
            ...looks.map((one) => ({ value: one.id, label: `${one.of}, ${dateText(one.at)}` })),
          ]}
          onChange={(id) => {
            const look = looks.find((one) => one.id === id);
            if (look) onTake(hexOf(look.seen), look.thicknessMm);
          }}
          className="w-56"
        />
      )}
    </>
  );
}
