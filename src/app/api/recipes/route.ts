import { bodyAs, route } from '@/server/http';
import { keepRecipe, listRecipes, namedRecipeSchema } from '@/server/recipes';

export const GET = route('person', async () => ({ recipes: await listRecipes() }));

/** Keeps a recipe under a name; one of that name is replaced. */
export const POST = route('person', async (request) => ({
  id: await keepRecipe(await bodyAs(request, namedRecipeSchema)),
}));
