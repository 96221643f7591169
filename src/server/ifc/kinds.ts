/** What classes of the standard are on plans, where their own word is not it. */
const words: Record<string, string> = {
  Footing: 'FOUNDATION',
  Pile: 'FOUNDATION',
  DeepFoundation: 'FOUNDATION',
  StairFlight: 'STAIR',
  RampFlight: 'RAMP',
  Space: 'ROOM',
  FurnishingElement: 'FURNITURE',
  SystemFurnitureElement: 'FURNITURE',
  GeographicElement: 'SITE',
  BuildingElementProxy: 'OTHER',
  BuiltElement: 'OTHER',
};

/** A class as the layer of a plan: IfcWallStandardCase is WALL, IfcFlowTerminal is FLOW TERMINAL. */
export function kindOf(name: string): string {
  const plain = name.replace(/^Ifc/, '').replace(/(StandardCase|ElementedCase)$/, '');
  return words[plain] ?? plain.replace(/(?<=[a-z])(?=[A-Z])/g, ' ').toUpperCase();
}
