import { useNavigate } from 'react-router';
import type { Recipe, RecipeItem, RecipeRow } from '../../../contract/recipes.ts';
import { useWrite } from '../../api/write.ts';

/** The same recipe with other amounts, kept as its next revision. */
export function useNextRevision(recipe: RecipeRow) {
  const navigate = useNavigate();
  const { id, version, name, hex, notes, revision } = recipe;
  return useWrite<
    Recipe,
    { items: (Pick<RecipeItem, 'materialId' | 'amount' | 'unit'> & { turned?: boolean })[]; reason: string }
  >(
    (changed) => ({
      path: `/recipes/${id}`,
      method: 'PUT',
      version,
      body: { name, hex, notes, basisMl: revision.basisMl, ...changed },
    }),
    () => navigate(`/colours/${id}`),
  );
}
