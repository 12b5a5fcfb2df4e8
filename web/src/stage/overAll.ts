import { NoBlending, ShaderMaterial } from "three";

const QUAD = /* glsl */ `
  varying vec2 at;
  void main() {
    at = uv;
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }
`;

/** A material for a quad over all that is drawn, whose fragment knows where it is by `at`, from 0 to 1. */
export function overAll(fragment: string, uniforms: ShaderMaterial["uniforms"]): ShaderMaterial {
  return new ShaderMaterial({
    vertexShader: QUAD,
    fragmentShader: `varying vec2 at;\n${fragment}`,
    uniforms,
    depthTest: false,
    depthWrite: false,
    blending: NoBlending,
  });
}
