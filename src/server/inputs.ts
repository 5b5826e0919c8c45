import 'reflect-metadata';
import { type ClassConstructor, plainToInstance } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  type ValidationError,
  validateSync,
} from 'class-validator';
import { READ_AS, type ReadAs } from '../core/snapshot/read-as.ts';
import { CACHE_STATES } from '../core/vocabulary/cache-states.ts';
import { Problem } from './problem.ts';
import type { Rescue } from './store-trouble.ts';

class PlanContent {
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  description?: string;

  @IsOptional()
  @IsArray()
  decisions?: unknown[];
}

export class NewPlanInput extends PlanContent {
  @IsString()
  @Length(1, 80)
  name!: string;

  @IsOptional()
  @IsString()
  @Length(1, 80)
  basedOn?: string;
}

export class PlanChangeInput extends PlanContent {
  @IsInt()
  @Min(1)
  version!: number;

  @IsOptional()
  @IsString()
  @Length(1, 80)
  name?: string;
}

/** Decisions whose edits of the source are wanted. */
export class PatchInput {
  @IsString()
  @Length(1, 80)
  name!: string;

  @IsArray()
  decisions!: unknown[];
}

/** A production build to be laid beside what a plan promised. */
export class BuildInput extends PatchInput {
  @IsString()
  @Length(1, 4000)
  folder!: string;
}

/** Whether a project is to be kept in step with its folder. */
export class FollowInput {
  @IsBoolean()
  follows!: boolean;
}

/** A landing of a plan that is to be run in a browser. */
export class RehearsalInput extends PatchInput {
  @IsString()
  @Length(1, 400)
  route!: string;

  /** Ids of a link and a device, named ones or such as spell out their values. */
  @IsString()
  @Length(1, 200)
  link!: string;

  @IsString()
  @Length(1, 200)
  device!: string;

  @IsIn(CACHE_STATES)
  cache!: string;

  @IsInt()
  @Min(1)
  @Max(50)
  runs!: number;

  @IsOptional()
  @IsString()
  @Matches(/^\/\S*$/, { message: 'address must begin with / and hold no spaces' })
  @MaxLength(2000)
  address?: string;

  /** A folder, a recording or the address of a server that answers calls for data. */
  @IsOptional()
  @IsString()
  @MaxLength(4000)
  data?: string;

  /** What is done after the landing, one after the other: parts by their ids, routes that are moved to by their patterns. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @Length(1, 200, { each: true })
  acts?: string[];

  /** The person allows that the project's code is run, from now on. */
  @IsOptional()
  @IsBoolean()
  allow?: boolean;
}

export class ProjectInput {
  @IsString()
  @Length(1, 200)
  fileName!: string;

  @IsString()
  text!: string;
}

/** What is to be read as what; base address and workspace are looked at closely by what reads. */
class HowInput {
  @IsOptional()
  @IsIn(READ_AS)
  as?: ReadAs;

  @IsOptional()
  @IsString()
  @MaxLength(500)
  base?: string;

  @IsOptional()
  @IsString()
  @MaxLength(4000)
  workspace?: string;

  @IsOptional()
  @IsString()
  @MaxLength(20_000)
  starts?: string;
}

/** A folder to be read, or the project whose folder is to be read again. */
export class ReadingInput extends HowInput {
  @ValidateIf((input: ReadingInput) => input.projectId === undefined)
  @IsString()
  @Length(1, 4000)
  folder?: string;

  @IsOptional()
  @IsString()
  @Length(1, 80)
  projectId?: string;
}

/** Corrections to what was read of a project, whole. Their inside is checked by the core. */
export class AmendmentsInput {
  @IsInt()
  @Min(1)
  version!: number;

  @IsObject()
  amendments!: object;
}

/** What is to be done about a database that can't be used as it is. */
export class RescueInput {
  @IsIn(['fresh', 'put back', 'open', 'copy'] satisfies Rescue['do'][])
  do!: Rescue['do'];

  @IsOptional()
  @IsString()
  @Length(1, 200)
  copy?: string;
}

/** How an archive is to be read; its bytes are the body. */
export class ArchiveInput extends HowInput {
  @IsString()
  @Length(1, 200)
  name!: string;
}

/** Turns the body of a request into a checked input; throws a Problem that names the field. */
export async function readInput<T extends object>(request: Request, kind: ClassConstructor<T>): Promise<T> {
  return inputOf(await textOf(request), kind);
}

/** The same of a body that is there already. */
export function inputOf<T extends object>(text: string, kind: ClassConstructor<T>): T {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    throw new Problem('broken-json', 'Broken JSON', 'The body of the request must be JSON.');
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body)) {
    throw new Problem('unexpected-content', 'Unexpected content', 'The body of the request must be an object.');
  }
  return checkInput(body, kind);
}

/** Largest body that is read on the thread that answers calls, in bytes: the decisions of a plan of a very large app. */
const MOST_BODY = 20_000_000;
/** Of all that are on their way together. */
const MOST_TOGETHER = 100_000_000;

const held = globalThis as typeof globalThis & { yokelineBodies?: number };

/** The body as text, read piece by piece, so that one that is too large is refused before it fills the memory. */
async function textOf(request: Request): Promise<string> {
  const tooLarge = () =>
    new Problem('body-too-large', 'Too large', `The body of the request is larger than ${MOST_BODY / 1e6} MB.`);
  if (Number(request.headers.get('content-length') ?? 0) > MOST_BODY) throw tooLarge();
  if (!request.body) return '';
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  try {
    for await (const piece of request.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += piece.length;
      held.yokelineBodies = (held.yokelineBodies ?? 0) + piece.length;
      if (bytes > MOST_BODY) throw tooLarge();
      if (held.yokelineBodies > MOST_TOGETHER)
        throw new Problem('too-many-bodies', 'Too much at once', 'The server takes in other large bodies; try again.');
      pieces.push(piece);
    }
  } finally {
    held.yokelineBodies = (held.yokelineBodies ?? 0) - bytes;
  }
  return new TextDecoder().decode(Buffer.concat(pieces));
}

/** Turns what somebody sent into a checked input; throws a Problem that names the field. */
export function checkInput<T extends object>(body: object, kind: ClassConstructor<T>): T {
  const input = plainToInstance(kind, body);
  const [first] = validateSync(input, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  if (first)
    throw new Problem('unexpected-content', 'Unexpected content', `${wordsOf(first)}.`, { at: first.property });
  return input;
}

function wordsOf(error: ValidationError): string {
  return Object.values(error.constraints ?? { wrong: `${error.property} is not as expected` }).join('; ');
}
