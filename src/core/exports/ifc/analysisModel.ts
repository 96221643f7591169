import type { ReadModel } from '@/core/handover/model/readModel';
import { freedomCount, type FrameMember, type FrameNode, type NodeLoad, type PlaceLoad } from '@/core/structure/frame';
import { deriveStructure, type Structure } from '@/core/structure/derive/derive';
import { memberName, nodeName } from '@/core/structure/trial';
import type { V3 } from '@/core/structure/vector3';
import type { Frame } from './context';
import { globalId } from './globalId';
import { typed, word, type Attribute, type Ref } from './step';

/** Ends nearer to their node than this lie in it, metres. */
const inNode = 1e-3;

/** What load cases do by what they are usually called. */
const actions: Record<string, readonly [type: string, source: string]> = {
  G: ['PERMANENT_G', 'DEAD_LOAD_G'],
  Q: ['VARIABLE_Q', 'LIVE_LOAD_Q'],
  S: ['VARIABLE_Q', 'SNOW_S'],
  W: ['VARIABLE_Q', 'WIND_W'],
};

const apart = (a: V3, b: V3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/**
 * Writes the structural analysis model that is derived from a model: nodes with what holds them, members with their
 * releases and eccentric ends, slabs as surfaces, loads by case, combinations with their factors.
 * @param products what elements became, by their ids
 */
export function addAnalysis(frame: Frame, model: ReadModel, products: ReadonlyMap<string, Ref>): void {
  if (model.columns.length + model.beams.length + model.walls.length === 0) return;
  const structure = deriveStructure(model);
  if (structure.frame.members.length > 0) new AnalysisModel(frame, structure, products).write(model);
}

class AnalysisModel {
  private readonly key: string;
  private readonly nodes: Ref[];
  private readonly members: Ref[];

  constructor(
    private readonly out: Frame,
    private readonly structure: Structure,
    private readonly products: ReadonlyMap<string, Ref>,
  ) {
    this.key = structure.frame.members[0].element;
    const { frame } = structure;
    this.nodes = frame.nodes.map((node, n) => this.node(node, n));
    this.members = frame.members.map((member, m) => this.member(member, m));
  }

  private rooted(entity: string, id: string, ...rest: Attribute[]): Ref {
    return this.out.file.add(entity, globalId(`analysis of ${this.key} ${id}`), null, ...rest);
  }

  write(model: ReadModel): void {
    const { structure } = this;
    const surfaces = model.slabs.flatMap((slab) => this.surface(slab));
    const groups = structure.loads.map((_, i) => this.loadCase(i));
    const combinations = structure.combinations.map(({ id, factors }) => this.combination(id, factors, groups));
    const whole3d = this.rooted(
      'IFCSTRUCTURALANALYSISMODEL',
      'model',
      'Structural analysis model',
      null,
      null,
      word('LOADING_3D'),
      null,
      [...groups, ...combinations],
      null,
      this.out.placement,
    );
    this.group('contents', [...this.nodes, ...this.members, ...surfaces], whole3d);
  }

  private group(id: string, members: readonly Ref[], group: Ref): void {
    if (members.length > 0) this.rooted('IFCRELASSIGNSTOGROUP', `${id} in`, null, null, [...members], null, group);
  }

  private topology(kind: 'Vertex' | 'Edge' | 'Face', item: Ref): Ref {
    const { file, shapes } = this.out;
    const own = file.add('IFCTOPOLOGYREPRESENTATION', shapes.reference, 'Reference', kind, [item]);
    return file.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [own]);
  }

  private vertex = (at: V3): Ref => this.out.file.once('IFCVERTEXPOINT', this.out.shapes.point(at));

  /** What holds a node: nothing where nothing does. */
  private node({ position, fixed, turn }: FrameNode, n: number): Ref {
    const { file, shapes } = this.out;
    const held = fixed.some(Boolean)
      ? file.add(
          'IFCBOUNDARYNODECONDITION',
          `Support of ${nodeName(n)}`,
          ...fixed.map((one) => typed('IFCBOOLEAN', one)),
        )
      : null;
    const axes = turn === 0 ? null : shapes.place([0, 0, 0], [Math.cos(turn), Math.sin(turn), 0]);
    return this.rooted(
      'IFCSTRUCTURALPOINTCONNECTION',
      `node ${n}`,
      nodeName(n),
      null,
      null,
      this.out.placement,
      this.topology('Vertex', this.vertex(position)),
      held,
      axes,
    );
  }

  private member(member: FrameMember, m: number): Ref {
    const { file, shapes } = this.out;
    const { ends, axes, element } = member;
    const edge = file.add('IFCEDGE', this.vertex(ends[0]), this.vertex(ends[1]));
    const ref = this.rooted(
      'IFCSTRUCTURALCURVEMEMBER',
      `member ${m}`,
      memberName(m),
      null,
      null,
      this.out.placement,
      this.topology('Edge', edge),
      word('RIGID_JOINED_MEMBER'),
      shapes.direction(axes[2]),
    );
    ([0, 1] as const).forEach((end) => this.joint(member, m, end, ref));
    const product = this.products.get(element);
    if (product !== undefined)
      this.rooted('IFCRELASSIGNSTOPRODUCT', `member ${m} is`, null, null, [ref], null, product);
    return ref;
  }

  /** An end of a member on its node: with what it does not pass on, and how far from the node it lies. */
  private joint({ nodes, ends, released }: FrameMember, m: number, end: 0 | 1, member: Ref): void {
    const { file, shapes } = this.out;
    const own = released.slice(freedomCount * end, freedomCount * (end + 1));
    const free = own.some(Boolean)
      ? file.add(
          'IFCBOUNDARYNODECONDITION',
          `End ${end + 1} of ${memberName(m)}`,
          ...own.map((one) => typed('IFCBOOLEAN', !one)),
        )
      : null;
    const { position } = this.structure.frame.nodes[nodes[end]];
    const eccentric = apart(position, ends[end]) > inNode;
    const arm = eccentric
      ? [
          file.add(
            'IFCCONNECTIONPOINTECCENTRICITY',
            shapes.point(ends[end]),
            shapes.point(position),
            ...[0, 1, 2].map((i) => position[i] - ends[end][i]),
          ),
        ]
      : [];
    this.rooted(
      eccentric ? 'IFCRELCONNECTSWITHECCENTRICITY' : 'IFCRELCONNECTSSTRUCTURALMEMBER',
      `member ${m} end ${end}`,
      null,
      null,
      member,
      this.nodes[nodes[end]],
      free,
      null,
      null,
      null,
      ...arm,
    );
  }

  /** A slab as a surface at the middle of its thickness. */
  private surface({ id, outline, thickness, top, level }: ReadModel['slabs'][number]): Ref[] {
    const elevation = top ?? this.out.storeys.get(level)?.elevation;
    if (outline.length < 3 || elevation === undefined) return [];
    const { file, shapes } = this.out;
    const z = elevation - thickness / 2;
    const loop = file.add(
      'IFCPOLYLOOP',
      outline.map(([x, y]) => shapes.point([x, y, z])),
    );
    const bound = file.add('IFCFACEOUTERBOUND', loop, true);
    const plane = file.add('IFCPLANE', shapes.place([0, 0, z]));
    const face = file.add('IFCFACESURFACE', [bound], plane, true);
    const ref = this.rooted(
      'IFCSTRUCTURALSURFACEMEMBER',
      `slab ${id}`,
      id,
      null,
      null,
      this.out.placement,
      this.topology('Face', face),
      word('SHELL'),
      thickness,
    );
    const product = this.products.get(id);
    if (product !== undefined) this.rooted('IFCRELASSIGNSTOPRODUCT', `slab ${id} is`, null, null, [ref], null, product);
    return [ref];
  }

  private loadCase(i: number): Ref {
    const { loads, cases } = this.structure;
    const { id, spread, places, nodes } = loads[i];
    const name = cases.find((one) => one.id === id)?.name ?? id;
    const [type, source] = actions[id] ?? ['NOTDEFINED', 'NOTDEFINED'];
    const group = this.rooted(
      'IFCSTRUCTURALLOADCASE',
      `case ${id}`,
      id,
      name,
      null,
      word('LOAD_CASE'),
      word(type),
      word(source),
      null,
      null,
      null,
    );
    const actionsOf = [
      ...spread.map((load, k) => this.spread(id, k, load)),
      ...places.map((load, k) => this.placed(id, k, load)),
      ...nodes.map((load, k) => this.atNode(id, k, load)),
    ];
    this.group(`case ${id}`, actionsOf, group);
    return group;
  }

  /** Newtons a metre along a piece of a member, from one value to another. */
  private spread(id: string, k: number, load: Structure['loads'][number]['spread'][number]): Ref {
    const { file } = this.out;
    const values = ([0, 1] as const).map((end) =>
      file.add('IFCSTRUCTURALLOADLINEARFORCE', null, ...load.force[end], ...load.moment[end]),
    );
    const configured = file.add('IFCSTRUCTURALLOADCONFIGURATION', null, values, [[load.from], [load.to]]);
    const action = this.rooted(
      'IFCSTRUCTURALCURVEACTION',
      `${id} spread ${k}`,
      `${id} on ${memberName(load.member)}`,
      null,
      null,
      this.out.placement,
      null,
      configured,
      word('GLOBAL_COORDS'),
      null,
      word('TRUE_LENGTH'),
      word('LINEAR'),
    );
    this.act(`${id} spread ${k}`, this.members[load.member], action);
    return action;
  }

  /** A force at a place of a member, in newtons and newton metres. */
  private placed(id: string, k: number, { member, at, force, moment }: PlaceLoad): Ref {
    const { ends } = this.structure.frame.members[member];
    const share = at / (apart(...ends) || 1);
    const point = [0, 1, 2].map((i) => ends[0][i] + (ends[1][i] - ends[0][i]) * share) as unknown as V3;
    return this.force(
      `${id} place ${k}`,
      `${id} on ${memberName(member)}`,
      { point, force, moment },
      this.members[member],
    );
  }

  private atNode(id: string, k: number, { node, force, moment }: NodeLoad): Ref {
    const { position: point } = this.structure.frame.nodes[node];
    return this.force(`${id} node ${k}`, `${id} on ${nodeName(node)}`, { point, force, moment }, this.nodes[node]);
  }

  private force(
    id: string,
    name: string,
    { point, force, moment }: Record<'point' | 'force' | 'moment', V3>,
    on: Ref,
  ): Ref {
    const load = this.out.file.add('IFCSTRUCTURALLOADSINGLEFORCE', null, ...force, ...moment);
    const action = this.rooted(
      'IFCSTRUCTURALPOINTACTION',
      id,
      name,
      null,
      null,
      this.out.placement,
      this.topology('Vertex', this.vertex(point)),
      load,
      word('GLOBAL_COORDS'),
      null,
    );
    this.act(id, on, action);
    return action;
  }

  private act(id: string, on: Ref, action: Ref): void {
    this.rooted('IFCRELCONNECTSSTRUCTURALACTIVITY', `${id} acts`, null, null, on, action);
  }

  private combination(id: string, factors: Readonly<Record<string, number>>, groups: readonly Ref[]): Ref {
    const group = this.rooted(
      'IFCSTRUCTURALLOADGROUP',
      `combination ${id}`,
      id,
      null,
      null,
      word('LOAD_COMBINATION'),
      word('NOTDEFINED'),
      word('NOTDEFINED'),
      null,
      null,
    );
    this.structure.loads.forEach((own, i) => {
      const factor = factors[own.id] ?? 0;
      if (factor !== 0)
        this.rooted('IFCRELASSIGNSTOGROUPBYFACTOR', `${own.id} in ${id}`, null, null, [groups[i]], null, group, factor);
    });
    return group;
  }
}
