/**
 * Cut faces are hatched as on paper: a pale ground in the component's colour and lines of ink, which run another way for
 * each discipline. `section` is the colour and the number of the hatch; a point lies in a plane with a normal;
 * `pixel` is how wide a pixel is there, in metres. The lines keep their distance on the screen to a factor of two, and
 * stand still in the building.
 */
export const HATCHING = /* glsl */ `
  float stroke(float along, float step, float pixel) {
    float away = abs(fract(along / step + 0.5) - 0.5) * step;
    return 1.0 - smoothstep(0.5 * pixel, 1.4 * pixel, away);
  }

  vec3 hatched(vec4 section, vec3 at, vec3 normal, float pixel) {
    vec3 across = abs(normal.z) > 0.99 ? vec3(1.0, 0.0, 0.0) : normalize(vec3(-normal.y, normal.x, 0.0));
    vec3 up = cross(normal, across);
    float u = dot(at, across);
    float v = dot(at, up);
    float step = 0.02 * exp2(ceil(log2(max(1.0, 7.0 * pixel / 0.02))));
    int kind = int(section.a + 0.5) % 8;
    float ink = 0.0;
    if (kind == 0 || kind == 2) ink = stroke((u + v) * 0.7071, step, pixel);
    if (kind == 1 || kind == 2) ink = max(ink, stroke((u - v) * 0.7071, step, pixel));
    if (kind == 3 || kind == 5) ink = stroke(u, step, pixel);
    if (kind == 4 || kind == 5) ink = max(ink, stroke(v, step, pixel));
    if (kind == 6) ink = stroke(u * 0.866 + v * 0.5, step * 0.5, pixel);
    if (kind == 7) ink = stroke(u * 0.5 - v * 0.866, step * 0.5, pixel);
    vec3 ground = mix(section.rgb, vec3(1.0, 0.99, 0.96), 0.45);
    return mix(ground, mix(section.rgb * 0.45, vec3(0.118, 0.169, 0.212), 0.6), ink * 0.85);
  }
`;
