import {
  BackSide,
  BufferAttribute,
  type BufferGeometry,
  Color,
  Group,
  LatheGeometry,
  Mesh,
  MeshBasicMaterial,
  SphereGeometry,
  Vector2,
  Vector3,
} from "three";
import { tone } from "../../style/tone";
import type { Layer } from "./layer";

const BODY = new Color("#c9c1b1");
const COAT = new Color(tone.here);
const HEAD = new Color("#d9b98c");
const HEAD_M = 0.11;
const SIDES = 14;
/** As heavy as the silhouettes of the building. */
const LINE_M = 0.012;

/** Flat faces in the light that the building stands in, painted on: the figure stands in no other. */
function facets(shape: BufferGeometry, colour: Color): BufferGeometry {
  const flat = shape.toNonIndexed();
  flat.computeVertexNormals();
  const normal = flat.getAttribute("normal");
  const colours = new Float32Array(normal.count * 3);
  for (let k = 0; k < normal.count; k++) {
    const light = 0.72 + 0.18 * normal.getY(k) + 0.14 * normal.getX(k);
    colours.set([colour.r * light, colour.g * light, colour.b * light], k * 3);
  }
  flat.setAttribute("color", new BufferAttribute(colours, 3));
  return flat;
}

/** The same shape a little larger, to be seen around it as its outline. */
function hull(shape: BufferGeometry): BufferGeometry {
  const larger = shape.clone();
  const [position, normal] = [larger.getAttribute("position"), larger.getAttribute("normal")];
  const at = new Vector3();
  const out = new Vector3();
  for (let k = 0; k < position.count; k++) {
    at.fromBufferAttribute(position, k).addScaledVector(out.fromBufferAttribute(normal, k), LINE_M);
    position.setXYZ(k, at.x, at.y, at.z);
  }
  return larger;
}

/** Somebody of a body's true size, for scale, drawn as the building is: flat light and dark outlines. */
export class Figure implements Layer {
  readonly name = "figure";
  readonly root = new Group();
  private readonly material = new MeshBasicMaterial({ vertexColors: true });
  private readonly outline = new MeshBasicMaterial({ color: new Color(tone.ink), side: BackSide });

  constructor(private readonly changed: () => void) {
    this.root.visible = false;
    this.root.rotation.order = "ZYX";
  }

  shape(heightM: number, radiusM: number): void {
    this.clear();
    const shoulder = heightM - 2 * HEAD_M - 0.04;
    const turned = (points: readonly (readonly [number, number])[]) =>
      new LatheGeometry(
        points.map(([x, y]) => new Vector2(x, y)),
        SIDES,
      );
    const hip = shoulder * 0.52;
    const legs = turned([
      [0, 0.02],
      [radiusM * 0.5, 0.02],
      [radiusM * 0.62, hip],
      [0, hip],
    ]);
    const coat = turned([
      [0, hip - 0.12],
      [radiusM * 0.78, hip - 0.12],
      [radiusM * 0.7, shoulder * 0.68],
      [radiusM * 0.98, shoulder * 0.94],
      [radiusM * 0.7, shoulder],
      [0.05, shoulder + 0.03],
      [0, shoulder + 0.03],
    ]);
    this.add(legs, BODY);
    this.add(coat, COAT);
    this.add(new SphereGeometry(HEAD_M, SIDES, 9).translate(0, heightM - HEAD_M, 0), HEAD);
    // A lathe turns about y; the building stands along z.
    this.root.rotation.x = Math.PI / 2;
  }

  private add(shape: BufferGeometry, colour: Color): void {
    this.root.add(new Mesh(facets(shape, colour), this.material), new Mesh(hull(shape), this.outline));
    shape.dispose();
  }

  show(at: { feet: Vector3; bearingDeg: number } | null): void {
    this.root.visible = at !== null;
    this.changed();
    if (!at) return;
    this.root.position.copy(at.feet);
    this.root.rotation.z = (-at.bearingDeg * Math.PI) / 180;
    this.root.updateMatrixWorld(true);
  }

  private clear(): void {
    for (const child of this.root.children) if (child instanceof Mesh) child.geometry.dispose();
    this.root.clear();
  }

  dispose(): void {
    this.clear();
    this.material.dispose();
    this.outline.dispose();
  }
}
