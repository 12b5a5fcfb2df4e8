import {
  BufferAttribute,
  type BufferGeometry,
  Color,
  Group,
  LatheGeometry,
  Mesh,
  MeshBasicMaterial,
  SphereGeometry,
  Vector2,
  type Vector3,
} from "three";

const BODY = new Color("#0e7c86");
const HEAD = new Color("#d9b98c");
const HEAD_M = 0.11;

/** Light from above and one side, painted on: the figure stands in no other light. */
function shaded(geometry: BufferGeometry, colour: Color): BufferGeometry {
  const normal = geometry.getAttribute("normal");
  const colours = new Float32Array(normal.count * 3);
  for (let k = 0; k < normal.count; k++) {
    const light = 0.72 + 0.18 * normal.getY(k) + 0.14 * normal.getX(k);
    colours.set([colour.r * light, colour.g * light, colour.b * light], k * 3);
  }
  geometry.setAttribute("color", new BufferAttribute(colours, 3));
  return geometry;
}

/** Somebody of a body's true size, for scale. */
export class Figure {
  readonly group = new Group();
  private readonly material = new MeshBasicMaterial({ vertexColors: true });

  constructor() {
    this.group.visible = false;
    this.group.rotation.order = "ZYX";
  }

  shape(heightM: number, radiusM: number): void {
    this.clear();
    const shoulder = heightM - 2 * HEAD_M - 0.04;
    const outline = [
      [0, 0.02],
      [radiusM * 0.55, 0.02],
      [radiusM * 0.6, shoulder * 0.45],
      [radiusM * 0.72, shoulder * 0.6],
      [radiusM, shoulder * 0.93],
      [radiusM * 0.72, shoulder],
      [0.05, shoulder + 0.03],
      [0, shoulder + 0.03],
    ].map(([x = 0, y = 0]) => new Vector2(x, y));
    const body = new Mesh(shaded(new LatheGeometry(outline, 24), BODY), this.material);
    const head = new Mesh(shaded(new SphereGeometry(HEAD_M, 18, 12), HEAD), this.material);
    head.position.y = heightM - HEAD_M;
    this.group.add(body, head);
    // A lathe turns about y; the building stands along z.
    this.group.rotation.x = Math.PI / 2;
  }

  show(at: { feet: Vector3; bearingDeg: number } | null): void {
    this.group.visible = at !== null;
    if (!at) return;
    this.group.position.copy(at.feet);
    this.group.rotation.z = (-at.bearingDeg * Math.PI) / 180;
    this.group.updateMatrixWorld(true);
  }

  private clear(): void {
    for (const child of this.group.children) if (child instanceof Mesh) child.geometry.dispose();
    this.group.clear();
  }

  dispose(): void {
    this.clear();
    this.material.dispose();
  }
}
