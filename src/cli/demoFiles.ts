import { basement } from '../../demo/basement';
import { groundFloor } from '../../demo/ground';
import { framing } from '../../demo/framing';
import { crossSection } from '../../demo/section';
import { upperFloor } from '../../demo/upper';
import { yard } from '../../demo/yard';

/** The drawings of the demo, each with one of the faults of real ones. */
export const demoFiles = {
  'marram-ground.dxf': () => groundFloor().dxf,
  'marram-ground-B.dxf': () => groundFloor({ revision: 'B' }).dxf,
  'marram-ground-one-layer.dxf': () => groundFloor({ oneLayer: true }).dxf,
  'marram-upper.dxf': () => upperFloor().dxf,
  'marram-basement.dxf': () => basement().dxf,
  'marram-yard.dxf': () => yard().dxf,
  'marram-section.dxf': () => crossSection().dxf,
  'marram-framing-ground.dxf': () => framing('ground').dxf,
  'marram-framing-upper.dxf': () => framing('upper').dxf,
};
