import type { JobRequest, JobState } from '@/core/jobs';
import type { BuildingReport } from '@/core/handover/intake/buildingReport';
import type { ElementRow } from '@/core/kinds/element';
import type { ColumnType, Generated, JSONColumnType } from 'kysely';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import type { Change } from '@/core/model/edits';
import type { Right } from '@/core/people';
import type { DecisionRow, LevelKind, LibraryRow, ProjectRow } from '@/core/model/state';
import type { Look } from '@/core/model/look';
import type { Likeness } from '@/core/sorting/alike';
import type { Answer } from '@/core/sorting/answers';
import type { RoleMap } from '@/core/sorting/roleMap';
import type { Role } from '@/core/sorting/roles';
import type { Recipe } from '@/core/underlay/recipe/steps';
import type { DisplayUnit, LengthUnit } from '@/core/units/length';

type Timestamp = ColumnType<Date, Date | string | undefined, Date | string>;

/** A project; `undo_top` and `redo_top` are the edits that undo and redo would take next. */
interface ProjectTable {
  id: string;
  name: string;
  display_unit: DisplayUnit;
  places: number | null;
  angles: Generated<ProjectRow['angles']>;
  survey: JSONColumnType<NonNullable<ProjectRow['survey']>> | null;
  axes: ColumnType<ProjectRow['axes'], string | undefined, string>;
  naming: JSONColumnType<NonNullable<ProjectRow['naming']>> | null;
  structure: JSONColumnType<NonNullable<ProjectRow['structure']>> | null;
  site: JSONColumnType<NonNullable<ProjectRow['site']>> | null;
  reading: JSONColumnType<NonNullable<ProjectRow['reading']>> | null;
  version: Generated<number>;
  undo_top: number | null;
  redo_top: number | null;
  deleted_at: Date | null;
  /** Since when it is held as it is, and by whom. */
  held_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
  held_by: ColumnType<string | null, string | null | undefined, string | null>;
  created_at: Timestamp;
  updated_at: Timestamp;
}

interface LevelTable {
  id: string;
  project_id: string;
  name: string;
  elevation: number;
  height: number;
  kind: LevelKind;
  build_up: number;
  slab: number;
  repeats: string | null;
}
interface DrawingLevelTable {
  project_id: string;
  drawing_id: string;
  level_id: string;
}

/** A file's content, shared by the revisions that show it. */
interface FileTable {
  id: string;
  sha256: string;
  size: number;
  created_at: Timestamp;
}
/** What a file was before it was made a DXF: by the office's converter, or by cutting a plan through a building. */
interface FileOriginTable {
  file_id: string;
  original_id: string;
  name: string;
  /** What the converter said. */
  log: string;
  report: JSONColumnType<BuildingReport> | null;
}
interface FileChunkTable {
  file_id: string;
  seq: number;
  bytes: Buffer;
}

/** Derived from a file by one version of the reader; can be made again from the chunks at any time. */
interface FileReportTable {
  file_id: string;
  reader_version: number;
  intake: JSONColumnType<IntakeFile>;
  picture: ColumnType<number[] | null, string | null, string | null>;
}
interface FileColumnsTable {
  file_id: string;
  seq: number;
  bytes: Buffer;
}

interface DrawingTable {
  id: string;
  project_id: string;
  name: string;
  revision: number;
  level_id: string | null;
  discarded: boolean;
  set_aside: boolean;
}
interface RevisionTable {
  drawing_id: string;
  number: number;
  file_id: string;
  file_name: string;
  created_at: Timestamp;
}
interface PlacementTable {
  drawing_id: string;
  unit: LengthUnit;
  scale: number;
  confirmed: boolean;
  mirrored: boolean;
  upright: number | null;
  origin_x: number;
  origin_y: number;
  target_x: number;
  target_y: number;
  turning: number;
}
interface NamedRecipeTable {
  id: string;
  name: string;
  steps: JSONColumnType<Recipe>;
  updated_at: Timestamp;
}
interface RoleMapTable {
  id: string;
  name: string;
  rules: JSONColumnType<RoleMap['rules']>;
  lessons: JSONColumnType<RoleMap['lessons']>;
  answers: JSONColumnType<RoleMap['answers']>;
  first_number: RoleMap['firstNumber'];
  updated_at: Timestamp;
}
interface LayerRoleTable {
  project_id: string;
  drawing_id: string;
  layer: string;
  role: Role | null;
  suggested: boolean;
  shown: boolean;
  library_id: string | null;
}
interface PickTable {
  project_id: string;
  id: string;
  drawing_id: string;
  kind: 'block' | 'lines' | 'alike' | 'answer';
  name: string;
  role: Role | null;
  handles: string[] | null;
  lesson: JSONColumnType<Likeness | Answer> | null;
}
/** A section or a construction; `made` is what is special to its kind. */
interface LibraryTable {
  id: string;
  project_id: string;
  kind: LibraryRow['kind'];
  name: string;
  made: JSONColumnType<Record<string, unknown>>;
}
interface DecisionTable {
  project_id: string;
  drawing_id: string;
  key: string;
  verdict: 'accepted' | 'rejected';
  element_id: string | null;
  seen: ColumnType<DecisionRow['seen'], string | null, string | null>;
}
interface ElementTable {
  id: string;
  project_id: string;
  level_id: string | null;
  kind: ElementRow['kind'];
  shape: JSONColumnType<ElementRow['shape']>;
  source_drawing: string | null;
  source_handles: string[] | null;
  library_id: string | null;
  held: Generated<boolean>;
  /** Of an opening, what its shape says. */
  wall_id: Generated<string | null>;
}

/** The append-only log. `undoes` names the edit that this one takes back; a redo takes back an undo. */
interface EditTable {
  project_id: string;
  seq: number;
  client_id: string;
  label: string;
  changes: JSONColumnType<Change[]>;
  inverse: JSONColumnType<Change[]>;
  /** The rows it changed, each as its table and its id. */
  touched: string[];
  undoes: number | null;
  previous_undo: number | null;
  previous_redo: number | null;
  /** The window that it came from; null where the program did it, or an earlier version of it. */
  window_id: string | null;
  /** Who made it, by the name of then; null where nobody signs in. */
  person: string | null;
  created_at: Timestamp;
}

/** A point of the log that somebody has named: the project as it was after an edit. */
interface EditMarkTable {
  project_id: string;
  seq: number;
  name: string;
  created_at: Timestamp;
}

export type IntakeState = 'receiving' | 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';

/** A file on its way in. `done` of `total` bytes were read. */
interface IntakeTable {
  /** The process that takes it in or reads it at the moment. */
  process: ColumnType<string | null, string | null | undefined, string | null>;
  crashes: Generated<number>;
  deaths: Generated<number>;
  id: string;
  project_id: string;
  level_id: string | null;
  file_id: string | null;
  file_name: string;
  size: number;
  state: IntakeState;
  done: Generated<number>;
  message: string | null;
  drawing_id: string | null;
  revises: string | null;
  /** Who brought it in; null where nobody signs in. */
  person_id: ColumnType<string | null, string | null | undefined, string | null>;
  created_at: Timestamp;
  updated_at: Timestamp;
}

/** A look that has a name. */
interface ViewTable {
  id: string;
  project_id: string;
  name: string;
  key: string | null;
  look: JSONColumnType<Look>;
}

/** A finding that somebody accepts. */
interface AcceptanceTable {
  id: string;
  project_id: string;
  rule: string;
  elements: JSONColumnType<string[]>;
  message: string;
  reason: string;
}

/** Processes that say they live. */
interface ProcessTable {
  id: string;
  beat_at: Timestamp;
}

/** Something calculated or written in the background; `done` is the share of it, from 0 to 1. */
interface JobTable {
  id: string;
  project_id: string;
  kind: string;
  wish: JSONColumnType<JobRequest>;
  state: JobState;
  done: Generated<number>;
  /** The version of the project that it was made from; null before. */
  version: number | null;
  process: string | null;
  deaths: Generated<number>;
  message: string | null;
  /** Who asked for it; null where nobody signs in. */
  person_id: ColumnType<string | null, string | null | undefined, string | null>;
  created_at: Timestamp;
  updated_at: Timestamp;
}

/** An account. */
interface PersonTable {
  id: string;
  name: string;
  /** Argon2id, with its parameters and its salt. */
  password: string;
  /** Whether they own the installation. */
  head: Generated<boolean>;
  created_at: Timestamp;
}

/** Somebody who is signed in; of the token only its hash. */
interface SessionTable {
  token: string;
  person_id: string;
  made_at: Timestamp;
  seen_at: Timestamp;
}

interface RightTable {
  project_id: string;
  person_id: string;
  right: Right;
}

/** A link that makes an account, gives a right in a project, or lets somebody choose a new password. */
interface InvitationTable {
  token: string;
  /** Whose password is chosen anew; null of the others. */
  person_id: string | null;
  project_id: string | null;
  right: Right | null;
  head: Generated<boolean>;
  ends_at: ColumnType<Date, Date, never>;
}

interface FailedSignInTable {
  id: Generated<string>;
  key: string;
  at: Timestamp;
}

/** What came of a job. */
interface JobFileTable {
  id: string;
  job_id: string;
  name: string;
  type: string;
  size: number;
  sha256: string;
  bytes: Buffer;
}

export interface Database {
  projects: ProjectTable;
  levels: LevelTable;
  people: PersonTable;
  sessions: SessionTable;
  rights: RightTable;
  invitations: InvitationTable;
  failed_sign_ins: FailedSignInTable;
  files: FileTable;
  file_chunks: FileChunkTable;
  file_origins: FileOriginTable;
  file_reports: FileReportTable;
  file_columns: FileColumnsTable;
  drawings: DrawingTable;
  drawing_levels: DrawingLevelTable;
  revisions: RevisionTable;
  placements: PlacementTable;
  named_recipes: NamedRecipeTable;
  role_maps: RoleMapTable;
  layer_roles: LayerRoleTable;
  picks: PickTable;
  library: LibraryTable;
  decisions: DecisionTable;
  elements: ElementTable;
  views: ViewTable;
  acceptances: AcceptanceTable;
  edits: EditTable;
  edit_marks: EditMarkTable;
  intakes: IntakeTable;
  jobs: JobTable;
  job_files: JobFileTable;
  processes: ProcessTable;
}
