/** The element that something of a building is: on levels that repeat another it is the other's. */
export const elementOf = (id: string): string => id.split('@')[0];
