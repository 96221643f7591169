import { route } from '@/server/http';
import { forgetRecipe } from '@/server/recipes';

export const DELETE = route<'recipe'>(async (_, { recipe }) => forgetRecipe(recipe));
