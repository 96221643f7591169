import type { ToolRequest } from '../boardStore';
import { GatherTool } from './gather/gatherTool';
import { LookTool } from './look/lookTool';
import { MeasureTool } from './measure/measureTool';
import { OutlineTool } from './outline/outlineTool';
import { PickTool } from './pick/pickTool';
import { PickLineTool } from './pickLine/pickLineTool';
import type { BoardTool } from './tool';
import { TakeTool } from './take/takeTool';
import { TraceTool } from './trace/traceTool';
import type { World } from './world';

type Makers = { [K in ToolRequest['kind']]: (request: ToolRequest & { kind: K }, world: World) => BoardTool };

const makers: Makers = {
  look: (_, world) => new LookTool(world),
  pick: (request, world) => new PickTool(request, world),
  pickLine: (request, world) => new PickLineTool(request, world),
  gather: (request, world) => new GatherTool(request, world),
  measure: (request, world) => new MeasureTool(request, world),
  outline: (request, world) => new OutlineTool(request, world),
  take: (request, world) => new TakeTool(request, world),
  trace: (request, world) => new TraceTool(request, world),
};

const make = <K extends ToolRequest['kind']>(kind: K, request: ToolRequest & { kind: K }, world: World): BoardTool =>
  makers[kind](request, world);

/** The tool that is asked for. */
export const toolFor = (request: ToolRequest, world: World): BoardTool => make(request.kind, request, world);
