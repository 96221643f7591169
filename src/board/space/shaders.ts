/** The parallel projection, and the height that everything is cut at; numbers are about the bodies' origin. */
const projecting = `
precision highp float;
uniform vec4 toX;
uniform vec4 toY;
uniform vec4 toZ;
in vec3 position;
out vec3 place;
vec4 projected(vec3 at) { return vec4(dot(toX, vec4(at, 1.0)), dot(toY, vec4(at, 1.0)), dot(toZ, vec4(at, 1.0)), 1.0); }`;

export const faceVertex = `${projecting}
void main() {
  place = position;
  gl_Position = projected(position);
}`;

/** Lines lie this much nearer than the faces they bound, so that they are not lost in them; as a share of the depth. */
const nearer = 0.0004;

export const lineVertex = `${projecting}
void main() {
  place = position;
  gl_Position = projected(position);
  gl_Position.z -= ${nearer};
}`;

/** Faces by how they are turned to a light from above and from the left; what is cut open shows its filling. */
export const faceFragment = `
precision highp float;
uniform vec3 tint;
uniform vec3 ground;
uniform float strength;
uniform float cut;
in vec3 place;
out vec4 colour;
void main() {
  if (place.z > cut) discard;
  vec3 normal = normalize(cross(dFdx(place), dFdy(place)));
  float light = 0.62 + 0.28 * abs(normal.z) + 0.1 * abs(dot(normal, normalize(vec3(0.8, 0.4, 0.0))));
  vec3 lit = mix(tint, ground, 0.92 * light);
  vec3 shown = gl_FrontFacing ? lit : mix(tint, ground, 0.15);
  colour = vec4(shown * strength, strength);
}`;

export const lineFragment = `
precision highp float;
uniform vec3 tint;
uniform float strength;
uniform float cut;
in vec3 place;
out vec4 colour;
void main() {
  if (place.z > cut) discard;
  colour = vec4(tint * strength, strength);
}`;
