import type { Material } from '../../../contract/materials.ts';
import type { Pour, PourMold } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import { AMID, Dialog } from '../../parts/Dialog.tsx';
import { DoseBoard } from '../../parts/DoseBoard.tsx';
import { InThisOrder } from '../../parts/InThisOrder.tsx';
import { ScaledRow } from '../../parts/ScaledRecipe.tsx';

export function DoseDialog({
  open,
  onClose,
  pour,
  doses,
  materials,
  onAsWritten,
}: {
  open: boolean;
  onClose(): void;
  pour: Pour;
  doses: Dose[];
  materials: Material[];
  onAsWritten(): void;
}) {
  return (
    <Dialog open={open} onClose={onClose} className={`${AMID} w-[980px]`} label="Doses">
      <div className="flex flex-col gap-4">
        {doses.length === 0 && pour.plan.items.length > 0 && (
          <div className="flex gap-6 items-end flex-wrap">
            <ul className="flex-1 min-w-60 ruled">
              {pour.plan.items.map((item, index) => {
                const about = pour.recipeItems[index];
                return about ? <ScaledRow key={item.id} item={about} scale={item} /> : null;
              })}
            </ul>
            <div className="w-full order-last">
              <InThisOrder items={pour.recipeItems} />
            </div>
            <button type="button" className="btn btn-accent h-20 text-xl" onClick={onAsWritten}>
              All in, as written
            </button>
          </div>
        )}
        <DoseBoard
          ledgerId={pour.ledgerId}
          doses={doses}
          materials={materials}
          batchMl={pour.cookMl}
          about={pour.id}
          firstIds={pour.recipeItems.map((item) => item.materialId)}
        />
        <button type="button" className="btn btn-primary bench-target self-end w-48" onClick={onClose}>
          Back to the cup
        </button>
      </div>
    </Dialog>
  );
}

/** A shot from a cup that nobody read: asked once, since the window and the cooling rest on it. */
export function UnreadDialog({
  mold,
  cup,
  onRead,
  onDrawn,
  onClose,
}: {
  mold: PourMold | null;
  /** Its name, where there are several. */
  cup: string | null;
  onRead(): void;
  onDrawn(): void;
  onClose(): void;
}) {
  return (
    <Dialog open={mold !== null} onClose={onClose} label="The cup was not read">
      {mold && (
        <div className="flex flex-col gap-4 w-[520px] max-w-full">
          <h2 className="text-2xl">Nobody has read {cup === null ? 'this cup' : `the cup of ${cup}`} yet.</h2>
          <p className="text-lg">
            Too cold it fills badly, too hot it burns. Read it first, or say that the shot of {mold.name} was drawn all
            the same.
          </p>
          <button type="button" className="btn btn-accent h-20 text-2xl" onClick={onRead}>
            Type the temperature
          </button>
          <button type="button" className="btn btn-line bench-target" onClick={onDrawn}>
            Drawn without a reading
          </button>
          <button type="button" className="btn btn-ghost border border-[var(--edge)] bench-target" onClick={onClose}>
            Not drawn
          </button>
        </div>
      )}
    </Dialog>
  );
}
