import { route } from '@/server/http';
import { forgetRecipe } from '@/server/recipes';

export const DELETE = route<'recipe'>('person', async (_, { recipe }) => forgetRecipe(recipe));
