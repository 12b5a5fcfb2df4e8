import type { Vector3 } from "three";

/** What has a floor below and a ceiling above nearer than this is a room, and a wall keeps the eye so far from it. */
const ROOM_M = 12;
const WALL_M = 0.2;
/** So far one backs off behind the wall to look into the room through it. */
const BACK_M = 8;
/** A way of which so small a part is on the level goes up or down. */
const STEEP = 0.2;

/** What may be gone of a way back, and whether a wall ended it. */
export interface Backed {
  way: Vector3;
  kept: boolean;
}

/** A way that the eye goes behind the wall or back in, and how deep before it is looked through then. */
export interface Behind {
  way: Vector3;
  throughM: number;
}

/** A way on the level, as somebody goes back who keeps the height of the eye. */
function level(way: Vector3): Vector3 {
  return way.clone().setZ(0);
}

function steep(way: Vector3): boolean {
  return level(way).length() <= STEEP * way.length();
}

/** The line that one goes out and comes in again along. */
function lineOf(sight: Vector3): Vector3 {
  return steep(sight) ? sight.clone() : level(sight).normalize();
}

/**
 * Keeps the eye in the room that it is in: going back ends at the wall. Who asks for it backs off through the
 * wall and looks into the room through it.
 */
export class Inside {
  constructor(
    /** How far it is from one point to another before something that is shown is met, up to there. */
    private readonly clear: (from: Vector3, to: Vector3) => number,
  ) {}

  private roofed(eye: Vector3): boolean {
    return [1, -1].every((up) => this.clear(eye, eye.clone().setZ(eye.z + up * ROOM_M)) < ROOM_M);
  }

  /** The part of a way from the eye that ends before a wall. */
  private free(eye: Vector3, way: Vector3): Vector3 {
    const length = way.length();
    if (length < 1e-9) return way;
    const reach = length + WALL_M;
    const clear = this.clear(eye, eye.clone().addScaledVector(way, reach / length));
    return clear >= reach ? way : way.clone().setLength(Math.max(0, clear - WALL_M));
  }

  /** What may be gone of a way back from the eye. */
  back(eye: Vector3, way: Vector3): Backed {
    const gone = this.free(eye, way);
    if (gone === way || !this.roofed(eye)) return { way, kept: false };
    if (steep(way)) return { way: gone, kept: true };
    // Going back at an angle one does not end at the floor or the ceiling, but at the wall.
    const flat = level(way);
    const along = this.free(eye, flat);
    return { way: along, kept: along !== flat };
  }

  /**
   * What is gone of a way while the wall is looked through and lies so deep before the eye: back and forth along
   * the line of sight on the level, so that one comes in again where one went out.
   */
  behind(sight: Vector3, wayM: number, throughM: number, atMostM = Math.max(BACK_M, throughM)): Behind {
    const along = lineOf(sight);
    const per = along.dot(sight);
    const deep = Math.max(0, Math.min(atMostM, throughM - wayM * per));
    return { way: along.multiplyScalar((throughM - deep) / per), throughM: deep };
  }

  /** The way out through the wall behind the eye, however far behind it stands, and so far past it. */
  out(eye: Vector3, sight: Vector3, throughM: number, pastM: number): Behind {
    const wallM = this.clear(eye, eye.clone().addScaledVector(lineOf(sight), -ROOM_M));
    const wayM = pastM + (wallM < ROOM_M ? wallM : 0);
    return this.behind(sight, -wayM, throughM, Number.POSITIVE_INFINITY);
  }
}
