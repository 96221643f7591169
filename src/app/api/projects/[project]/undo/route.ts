import { stepRoute } from '@/server/stepRoute';

export const POST = stepRoute('undo');
