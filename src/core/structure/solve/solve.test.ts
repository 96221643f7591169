import * as fc from 'fast-check';
import type { Frame, FrameMember } from '../frame';
import { clamped, even, frameOf, free, held, member, noCase, node, placed, plain } from '../testing/frames';
import { cross3, dot3, minus, plus, times, zero, type V3 } from '../vector3';
import { lengthOfMember } from './member';
import { innerAt, solveFrame, type CaseResult } from './solve';

const one = (frame: Frame, loads: Partial<ReturnType<typeof noCase>>): CaseResult =>
  solveFrame(frame, [{ ...noCase(), ...loads }]).cases[0];
const moveOf = (result: CaseResult, n: number): number[] => Array.from(result.displacements.slice(6 * n, 6 * n + 6));
const supportOf = (result: CaseResult, n: number): number[] => result.supports.find(({ node }) => node === n)!.value;

test('a cantilever: PL3/3EI, PL2/2EI, and moments of a load across it, by hand', () => {
  const nodes = [node([0, 0, 0], clamped), node([4, 0, 0])];
  const frame = frameOf(nodes, [member(nodes, 0, 1)]);
  // 10 kN down at the tip of 4 m, E I = 40 MN m2: 5.3333 mm, 2 mrad; it turns about +y as the tip goes down.
  const result = one(frame, { nodes: [{ node: 1, force: [0, 0, -1e4], moment: zero }] });
  expect(moveOf(result, 1)).toEqual([0, 0, -16 / 3000, 0, 0.002, 0].map((v) => expect.closeTo(v, 12)));
  expect(supportOf(result, 0)).toEqual([0, 0, 1e4, 0, -4e4, 0].map((v) => expect.closeTo(v, 6)));
  // Tension above: My is negative, and Vz is its slope: +10 kN.
  expect(innerAt(frame, result, 0, 0)).toEqual([0, 0, 1e4, 0, -4e4, 0].map((v) => expect.closeTo(v, 6)));
  // Pushed along -y, E I = 20 MN m2: tension at +y, Mz is negative.
  const aside = one(frame, { nodes: [{ node: 1, force: [0, -1e4, 0], moment: zero }] });
  expect(moveOf(aside, 1)[1]).toBeCloseTo(-64e4 / (3 * 2e7), 12);
  expect(innerAt(frame, aside, 0, 0)).toEqual([0, 1e4, 0, 0, 0, -4e4].map((v) => expect.closeTo(v, 6)));
  // Pulled and twisted: N in tension, T right-handed on the face that looks along x.
  const pulled = one(frame, { nodes: [{ node: 1, force: [5e3, 0, 0], moment: [7e3, 0, 0] }] });
  expect(innerAt(frame, pulled, 0, 0.5)).toEqual([5e3, 0, 0, 7e3, 0, 0].map((v) => expect.closeTo(v, 6)));
});

test('a simple, a clamped and a propped beam under an even load: wL2/8, wL2/12 and wL2/24, 5/8 wL', () => {
  const pinned = held('x', 'y', 'z', 'rx', 'rz');
  const beam = (start: boolean[], end: boolean[]) => {
    const nodes = [node([0, 0, 0], start), node([6, 0, 0], end)];
    return frameOf(nodes, [member(nodes, 0, 1)]);
  };
  const w: V3 = [0, 0, -1e4];
  const simple = beam(pinned, held('y', 'z', 'rx', 'rz'));
  const result = one(simple, { spread: [even(simple, 0, w)] });
  expect(innerAt(simple, result, 0, 0.5)[4]).toBeCloseTo(45e3, 6);
  expect(innerAt(simple, result, 0, 0.25)[4]).toBeCloseTo(33750, 6);
  expect(innerAt(simple, result, 0, 0)[2]).toBeCloseTo(3e4, 6);
  const fixed = beam(clamped, clamped);
  const built = one(fixed, { spread: [even(fixed, 0, w)] });
  expect([0, 0.5, 1].map((at) => innerAt(fixed, built, 0, at)[4])).toEqual(
    [-3e4, 15e3, -3e4].map((v) => expect.closeTo(v, 6)),
  );
  const propped = beam(clamped, held('y', 'z', 'rx', 'rz'));
  const half = one(propped, { spread: [even(propped, 0, w)] });
  expect(supportOf(half, 0)[2]).toBeCloseTo((5 / 8) * 6e4, 6);
  // A point load at a third: P a b2 / L2 and P a2 b / L2.
  const point = one(fixed, { places: [placed(0, 2, [0, 0, -9e3])] });
  expect(innerAt(fixed, point, 0, 0)[4]).toBeCloseTo(-8e3, 6);
  expect(innerAt(fixed, point, 0, 1)[4]).toBeCloseTo(-4e3, 6);
});

test('a load that grows from nothing over a clamped beam: wL2/30 and wL2/20', () => {
  const nodes = [node([0, 0, 0], clamped), node([6, 0, 0], clamped)];
  const frame = frameOf(nodes, [member(nodes, 0, 1)]);
  const load = { ...even(frame, 0, zero), force: [zero, [0, 0, -1e4]] as const };
  const result = one(frame, { spread: [load] });
  expect(innerAt(frame, result, 0, 0)[4]).toBeCloseTo(-1e4 * 1.2, 6);
  expect(innerAt(frame, result, 0, 1)[4]).toBeCloseTo(-1e4 * 1.8, 6);
  expect(result.applied).toEqual([0, 0, expect.closeTo(-3e4, 6)]);
});

test('a continuous beam over three supports: 5/4 wL in the middle, -wL2/8 over it', () => {
  const nodes = [
    node([0, 0, 0], held('x', 'y', 'z', 'rx')),
    node([5, 0, 0], held('y', 'z')),
    node([10, 0, 0], held('y', 'z')),
  ];
  const frame = frameOf(nodes, [member(nodes, 0, 1), member(nodes, 1, 2)]);
  const result = one(frame, { spread: [even(frame, 0, [0, 0, -8e3]), even(frame, 1, [0, 0, -8e3])] });
  expect(supportOf(result, 1)[2]).toBeCloseTo(1.25 * 8e3 * 5, 6);
  expect(innerAt(frame, result, 0, 1)[4]).toBeCloseTo((-8e3 * 25) / 8, 6);
});

test('a hinge in a clamped beam: each half a cantilever, nothing at the hinge', () => {
  const nodes = [node([0, 0, 0], clamped), node([3, 0, 0]), node([6, 0, 0], clamped)];
  const frame = frameOf(nodes, [member(nodes, 0, 1, { released: ['end.ry'] }), member(nodes, 1, 2)]);
  const result = one(frame, { spread: [even(frame, 0, [0, 0, -1e4]), even(frame, 1, [0, 0, -1e4])] });
  expect(innerAt(frame, result, 0, 1)[4]).toBeCloseTo(0, 6);
  expect(innerAt(frame, result, 0, 0)[4]).toBeCloseTo(-45e3, 6);
});

test('a pin-jointed bracket: forces by the triangle of 3, 4 and 5, and no motion of its unheld turns', () => {
  const nodes = [node([0, 0, 0], clamped), node([0, 0, 3], clamped), node([4, 0, 3], held('y'))];
  const pin = ['start.ry', 'start.rz', 'end.ry', 'end.rz', 'start.rx'];
  const frame = frameOf(nodes, [member(nodes, 0, 2, { released: pin }), member(nodes, 1, 2, { released: pin })]);
  const solution = solveFrame(frame, [{ ...noCase(), nodes: [{ node: 2, force: [0, 0, -3e3], moment: zero }] }]);
  const [result] = solution.cases;
  expect(innerAt(frame, result, 0, 0.5)[0]).toBeCloseTo(-5e3, 6);
  expect(innerAt(frame, result, 1, 0.5)[0]).toBeCloseTo(4e3, 6);
  expect(solution.motions.filter(({ driven }) => driven)).toEqual([]);
});

test('a portal with pinned feet: thrust and corner moment by Kleinlogel, k = I2 h / I1 l', () => {
  const [h, l, w] = [4, 6, 1e4];
  const feet = held('x', 'y', 'z', 'rx', 'rz');
  const stiff = { ...plain, ea: 1e15 };
  const nodes = [node([0, 0, 0], feet), node([0, 0, h], held('y')), node([l, 0, h], held('y')), node([l, 0, 0], feet)];
  // In the plane of the frame the posts bend about their z, which has the smaller inertia: turned by a quarter.
  const post = (a: number, b: number) => member(nodes, a, b, { rigidity: stiff, angle: Math.PI / 2 });
  const frame = frameOf(nodes, [post(0, 1), member(nodes, 1, 2, { rigidity: stiff }), post(3, 2)]);
  const result = one(frame, { spread: [even(frame, 1, [0, 0, -w])] });
  const k = h / l;
  const thrust = (w * l * l) / (4 * h * (2 * k + 3));
  expect(supportOf(result, 0)[0] / thrust).toBeCloseTo(1, 5);
  expect(innerAt(frame, result, 1, 0)[4] / (-thrust * h)).toBeCloseTo(1, 5);
});

test('two crossed beams share a load by their stiffness: 1 to 8 for spans of 2 to 1', () => {
  const ends = held('x', 'y', 'z', 'rx', 'rz');
  const other = held('x', 'y', 'z', 'ry', 'rz');
  const nodes = [
    node([-4, 0, 0], ends),
    node([4, 0, 0], ends),
    node([0, -2, 0], other),
    node([0, 2, 0], other),
    node([0, 0, 0]),
  ];
  const soft = { ...plain, gj: 1e-6 * plain.gj };
  const frame = frameOf(
    nodes,
    [0, 1, 2, 3].map((n) => member(nodes, n, 4, { rigidity: soft })),
  );
  const result = one(frame, { nodes: [{ node: 4, force: [0, 0, -9e3], moment: zero }] });
  expect(supportOf(result, 0)[2]).toBeCloseTo(500, 1);
  expect(supportOf(result, 2)[2]).toBeCloseTo(4000, 1);
});

/**
 * Kassimali, Matrix Analysis of Structures, 2nd edition, example 8.4: three members of 240 in at right angles, one with
 * 0.25 k/in, and moments at the joint; kips and inches, y upwards there and z here. Displacements as the book has them.
 */
test('a space frame has the displacements of a textbook', () => {
  const rigidity = { ea: 29e3 * 32.9, eiy: 29e3 * 716, eiz: 29e3 * 236, eiyz: 0, gj: 11.5e3 * 15.1 };
  // The book's (x, y, z) is (x, -z, y) here.
  const at = (x: number, y: number, z: number): V3 => [x, -z, y];
  const nodes = [
    node(at(240, 0, 0)),
    node(at(0, 0, 0), clamped),
    node(at(240, -240, 0), clamped),
    node(at(240, 0, -240), clamped),
  ];
  // The book's strong axis is its z; turned by 0, 90 and 30 degrees about the member.
  const strong = (m: FrameMember, y: V3): FrameMember => {
    const x = m.axes[0];
    // Here the strong axis is y, square to what the book calls y.
    return { ...m, axes: [x, cross3(y, x), y] };
  };
  const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
  const frame = frameOf(nodes, [
    strong(member(nodes, 1, 0, { rigidity }), at(0, 1, 0)),
    strong(member(nodes, 2, 0, { rigidity }), at(0, 0, 1)),
    strong(member(nodes, 3, 0, { rigidity }), at(-s, c, 0)),
  ]);
  const result = one(frame, {
    spread: [even(frame, 0, at(0, -0.25, 0))],
    nodes: [{ node: 0, force: zero, moment: at(-1800, 0, 1800) }],
  });
  const [x, y, z, rx, ry, rz] = moveOf(result, 0);
  const book = [x, z, -y, rx, rz, -ry].map((v) => v * 1000);
  expect(book).toEqual([-1.3522, -2.7965, -1.812, -3.0021, 1.0569, 6.4986].map((v) => expect.closeTo(v, 3)));
});

test('a rigid arm passes on the moment of its shift', () => {
  // A post whose axis stands 0.3 m beside the node that carries the load.
  const nodes = [node([0, 0, 0], clamped), node([0.3, 0, 3])];
  const post = { ...member([node([0, 0, 0]), node([0, 0, 3])], 0, 1), nodes: [0, 1] as const };
  const frame = frameOf(nodes, [post]);
  const result = one(frame, { nodes: [{ node: 1, force: [0, 0, -1e4], moment: zero }] });
  expect(supportOf(result, 0)).toEqual([0, 0, 1e4, 0, -3e3, 0].map((v) => expect.closeTo(v, 6)));
});

/** A frame of random members between random nodes, clamped at its first three; random loads on it. */
const frames = fc
  .record({
    seed: fc.integer({ min: 1, max: 1e6 }),
    nodes: fc.integer({ min: 5, max: 9 }),
    members: fc.integer({ min: 4, max: 12 }),
  })
  .map(({ seed, nodes: n, members: m }) => {
    let state = seed;
    const random = (): number => (state = (state * 48271) % 2147483647) / 2147483647 - 0.5;
    const nodes = Array.from({ length: n }, (_, i) =>
      node([10 * random(), 10 * random(), 10 * random()], i < 3 ? clamped : free),
    );
    const pairs = [
      ...Array.from({ length: n - 1 }, (_, i) => [i, i + 1]),
      ...Array.from({ length: m }, (_, i) => [i % n, (i * 3 + 2) % n]),
    ];
    const members = pairs
      .filter(([a, b]) => a !== b)
      .map(([a, b]) => member(nodes, a, b, { angle: random(), rigidity: { ...plain, eiyz: 5e6 * random() } }));
    const frame = frameOf(nodes, members);
    const vector = (): V3 => [1e4 * random(), 1e4 * random(), 1e4 * random()];
    const spread = members.map((own, i) => {
      const l = lengthOfMember(own);
      return {
        member: i,
        from: 0.2 * l,
        to: 0.9 * l,
        force: [vector(), vector()] as const,
        moment: [vector(), vector()] as const,
      };
    });
    const places = members.map((own, i) => placed(i, 0.4 * lengthOfMember(own), vector(), vector()));
    const loads = { ...noCase(), spread, places, nodes: [{ node: n - 1, force: vector(), moment: vector() }] };
    return { frame, loads };
  });

/** The forces and their moments about zero of loads. */
function wrench({ frame, loads }: { frame: Frame; loads: ReturnType<typeof noCase> }) {
  let [force, moment]: [V3, V3] = [zero, zero];
  const add = (p: V3, f: V3, m: V3): void => {
    force = plus(force, f);
    moment = plus(moment, plus(m, cross3(p, f)));
  };
  const at = (m: number, along: number): V3 => plus(frame.members[m].ends[0], times(frame.members[m].axes[0], along));
  const steps = 400;
  for (const { member: m, from, to, force: f, moment: c } of loads.spread)
    for (let i = 0; i < steps; i += 1) {
      const share = (i + 0.5) / steps;
      const mix = ([a, b]: readonly [V3, V3]): V3 => times(plus(a, times(minus(b, a), share)), (to - from) / steps);
      add(at(m, from + (to - from) * share), mix(f), mix(c));
    }
  for (const { member: m, at: along, force: f, moment: c } of loads.places) add(at(m, along), f, c);
  for (const { node: n, force: f, moment: c } of loads.nodes) add(frame.nodes[n].position, f, c);
  return { force, moment };
}

test('any frame: reactions balance the loads and their moments, and both ends of every member agree', () => {
  fc.assert(
    fc.property(frames, ({ frame, loads }) => {
      const result = one(frame, loads);
      const { force, moment } = wrench({ frame, loads });
      let [up, turn]: [V3, V3] = [zero, zero];
      for (const { node: n, value } of result.supports) {
        const [f, c]: [V3, V3] = [
          [value[0], value[1], value[2]],
          [value[3], value[4], value[5]],
        ];
        up = plus(up, f);
        turn = plus(turn, plus(c, cross3(frame.nodes[n].position, f)));
      }
      const size = Math.hypot(...force) + Math.hypot(...moment);
      for (let i = 0; i < 3; i += 1) {
        expect(Math.abs(up[i] + force[i])).toBeLessThan(1e-6 * size);
        // The moment of loads was added up in steps.
        expect(Math.abs(turn[i] + moment[i])).toBeLessThan(1e-5 * size + 5);
        expect(Math.abs(result.applied[i] - force[i])).toBeLessThan(1e-6 * size);
      }
    }),
    { numRuns: 40 },
  );
});

test('any frame under loads at its nodes: the work of the loads is the energy of bending, twisting and pulling', () => {
  fc.assert(
    fc.property(frames, ({ frame, loads }) => {
      const bare = {
        frame: { ...frame, members: frame.members.map((m) => ({ ...m, rigidity: { ...m.rigidity, eiyz: 0 } })) },
        loads,
      };
      const result = one(bare.frame, { nodes: loads.nodes });
      const work = loads.nodes.reduce((sum, { node: n, force, moment }) => {
        const [x, y, z, rx, ry, rz] = moveOf(result, n);
        return sum + dot3(force, [x, y, z]) + dot3(moment, [rx, ry, rz]);
      }, 0);
      // Forces run evenly and moments straight from end to end: Simpson's rule is exact.
      const energy = bare.frame.members.reduce((sum, own, m) => {
        const { ea, eiy, eiz, gj } = own.rigidity;
        const at = [0, 0.5, 1].map((station) => {
          const [n, , , t, my, mz] = innerAt(bare.frame, result, m, station);
          return (n * n) / ea + (t * t) / gj + (my * my) / eiy + (mz * mz) / eiz;
        });
        return sum + ((at[0] + 4 * at[1] + at[2]) * lengthOfMember(own)) / 6;
      }, 0);
      expect(Math.abs(energy - work)).toBeLessThan(1e-9 * Math.abs(work) + 1e-12);
    }),
    { numRuns: 40 },
  );
});

test('a frame that is turned about z answers turned', () => {
  const angle = 0.7;
  const turn = ([x, y, z]: V3): V3 => [
    x * Math.cos(angle) - y * Math.sin(angle),
    x * Math.sin(angle) + y * Math.cos(angle),
    z,
  ];
  fc.assert(
    fc.property(frames, ({ frame, loads }) => {
      const turnedFrame: Frame = {
        ...frame,
        nodes: frame.nodes.map((n) => ({ ...n, position: turn(n.position) })),
        members: frame.members.map((m) => ({
          ...m,
          ends: [turn(m.ends[0]), turn(m.ends[1])],
          axes: [turn(m.axes[0]), turn(m.axes[1]), turn(m.axes[2])],
        })),
      };
      const pair = ([a, b]: readonly [V3, V3]): readonly [V3, V3] => [turn(a), turn(b)];
      const turnedLoads = {
        ...loads,
        spread: loads.spread.map((l) => ({ ...l, force: pair(l.force), moment: pair(l.moment) })),
        places: loads.places.map((l) => ({ ...l, force: turn(l.force), moment: turn(l.moment) })),
        nodes: loads.nodes.map((l) => ({ ...l, force: turn(l.force), moment: turn(l.moment) })),
      };
      const [a, b] = [one(frame, loads), one(turnedFrame, turnedLoads)];
      frame.nodes.forEach((_, n) => {
        const [x, y, z] = moveOf(a, n);
        expect(moveOf(b, n).slice(0, 3)).toEqual(turn([x, y, z]).map((v) => expect.closeTo(v, 9)));
      });
      const inner = innerAt(frame, a, 0, 0.3);
      innerAt(turnedFrame, b, 0, 0.3).forEach((v, i) =>
        expect(Math.abs(v - inner[i])).toBeLessThan(1e-6 * Math.max(1e4, Math.abs(inner[i]))),
      );
    }),
    { numRuns: 20 },
  );
});

test('a mechanism is named with all that moves, and what does not hang on it keeps its results', () => {
  // A sound portal, and beside it a post that stands on a ball with nothing to hold it, and a beam on one hinge.
  const nodes = [
    node([0, 0, 0], clamped),
    node([0, 0, 3]),
    node([9, 0, 0], held('x', 'y', 'z', 'rz')),
    node([9, 0, 3]),
  ];
  const frame = frameOf(nodes, [member(nodes, 0, 1), member(nodes, 2, 3)]);
  const push = (n: number): { node: number; force: V3; moment: V3 } => ({
    node: n,
    force: [1e3, 0, -2e3],
    moment: zero,
  });
  const solution = solveFrame(frame, [{ ...noCase(), nodes: [push(1), push(3)] }]);
  // It tips along x and along y; nothing tips it along y.
  expect(solution.motions.map(({ driven }) => driven).sort()).toEqual([false, true]);
  const tipping = solution.motions.find(({ driven }) => driven)!;
  const foot = tipping.nodes.slice(12, 18);
  const head = tipping.nodes.slice(18, 24);
  expect(Array.from(foot.slice(0, 3))).toEqual([0, 0, 0]);
  // The head moves by the turn times its height.
  expect(head[0] / foot[4]).toBeCloseTo(3, 9);
  expect([0, 1].map((m) => solution.memberSound(m))).toEqual([true, false]);
  // The sound post bends by 1 kN at 3 m; its y lies along x, and tension at -x is positive Mz.
  expect(innerAt(frame, solution.cases[0], 0, 0)[5]).toBeCloseTo(3e3, 6);
  for (const value of solution.cases[0].displacements) expect(Number.isFinite(value)).toBe(true);
});

test('a diaphragm keeps its nodes apart, and shares a push among posts by their stiffness and place', () => {
  // Two posts 6 m apart, one twice as stiff; pushed across at the stiffness centre the floor does not turn.
  const nodes = [node([0, 0, 0], clamped), node([0, 0, 4]), node([6, 0, 0], clamped), node([6, 0, 4])];
  const strong = { ...plain, eiy: 2 * plain.eiy, eiz: 2 * plain.eiz };
  const frame: Frame = {
    ...frameOf(nodes, [member(nodes, 0, 1), member(nodes, 2, 3, { rigidity: strong })]),
    diaphragms: [{ nodes: [1, 3] }],
  };
  // A third at the first and two thirds at the second: resultant at 4 m, the centre of stiffness 1 to 2.
  const result = one(frame, { nodes: [{ node: 1, force: [0, 9e3, 0], moment: zero }] });
  const [a, b] = [moveOf(result, 1), moveOf(result, 3)];
  expect(b[1] - a[1]).toBeCloseTo(6 * a[5], 12);
  expect(a[5]).toBeCloseTo(b[5], 12);
  expect(a[0]).toBeCloseTo(b[0], 12);
  const shared = one(frame, {
    nodes: [
      { node: 1, force: [0, 3e3, 0], moment: zero },
      { node: 3, force: [0, 6e3, 0], moment: zero },
    ],
  });
  expect(moveOf(shared, 1)[5]).toBeCloseTo(0, 12);
  expect(supportOf(shared, 0)[1]).toBeCloseTo(-3e3, 6);
});
