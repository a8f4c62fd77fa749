import * as THREE from 'three';

const ACROSS = `varying vec2 at; void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }`;

/** Puts a picture, and the darkening of corners, on the canvas. */
export function shower(): THREE.ShaderMaterial {
	return new THREE.ShaderMaterial({
		uniforms: {
			picture: { value: null },
			dark: { value: null },
			darkening: { value: 0 },
			/** For a target that keeps numbers as they are. */
			encoded: { value: false }
		},
		vertexShader: ACROSS,
		fragmentShader: `
			varying vec2 at;
			uniform sampler2D picture; uniform sampler2D dark; uniform float darkening; uniform bool encoded;
			void main() {
				gl_FragColor = texture2D(picture, at);
				float lit = texture2D(dark, at).r;
				// What cannot be reckoned, of slivers of triangles, is not dark.
				if (!(lit >= 0.0)) lit = 1.0;
				gl_FragColor.rgb *= mix(1.0, lit, darkening);
				if (encoded) gl_FragColor = sRGBTransferOETF(gl_FragColor);
				#include <colorspace_fragment>
			}`,
		depthTest: false,
		depthWrite: false
	});
}

/**
 * Adds a picture to those before with a weight, and draws its outlines: where the depth bends. On a plane it does not,
 * with perspective as without, so that faces seen along their length have none.
 */
export function adder(): THREE.ShaderMaterial {
	return new THREE.ShaderMaterial({
		uniforms: {
			picture: { value: null },
			depth: { value: null },
			weight: { value: 1 },
			pixel: { value: new THREE.Vector2() },
			ink: { value: 0 },
			white: { value: 0 },
			/** From farthest to nearest by the distance of what is looked at; 0 with perspective. */
			level: { value: 0 }
		},
		vertexShader: ACROSS,
		fragmentShader: `
			varying vec2 at;
			uniform sampler2D picture; uniform sampler2D depth;
			uniform float weight; uniform vec2 pixel; uniform float ink; uniform float white; uniform float level;
			float deep(vec2 by) { return texture2D(depth, at + by * pixel).r; }
			/* Bends that are little beside how steeply it goes away are those of a round face's own triangles, seen along it. */
			float bendAlong(vec2 way, float here) {
				float ahead = deep(way) - here;
				float behind = deep(-way) - here;
				float steep = max(1e-9, max(abs(ahead), abs(behind)));
				return (ahead + behind) * smoothstep(0.5, 0.85, (ahead + behind) / steep);
			}
			void main() {
				vec3 seen = texture2D(picture, at).rgb;
				// Slivers of triangles have no normal to reckon with.
				if (!(seen.r + seen.g + seen.b >= 0.0)) seen = vec3(0.7);
				seen = min(seen, 4.0);
				if (ink > 0.0) {
					float here = deep(vec2(0.0));
					// Drawn on the nearer side only, so that a line is as fine as a point of the picture.
					float bend = max(bendAlong(vec2(1, 0), here), bendAlong(vec2(0, 1), here));
					bend *= level > 0.0 ? level : 1.0 / max(1e-5, 1.0 - here);
					if (here >= 1.0) bend = 0.0;
					// Nor where the ground ends, far behind what is looked at.
					else if (level == 0.0) bend *= smoothstep(0.0017, 0.0033, 1.0 - here);
					seen = mix(seen, vec3(0.93, 0.92, 0.89) * (0.75 + 0.25 * clamp(dot(seen, vec3(0.33)), 0.0, 1.2)), white);
					seen = mix(seen, vec3(0.012, 0.014, 0.017), ink * smoothstep(0.0015, 0.006, bend));
				}
				gl_FragColor = vec4(seen, weight);
			}`,
		transparent: true,
		depthTest: false,
		depthWrite: false
	});
}
