import * as THREE from 'three';

/**
 * How the eye stands: it looks at a target from a direction and a distance (m), z up. Everything a hand does to it is
 * said here by numbers; what carries it out is the `Eye`.
 */
export interface Pose {
	readonly target: THREE.Vector3;
	/** Turn about the vertical (rad): 0 looks from the south, a quarter turn from the east. */
	readonly turn: number;
	/** How high it stands over the target (rad): 0 is level, a quarter turn is from above. */
	readonly rise: number;
	/** m */
	readonly distance: number;
	/** Drawn without perspective, as elevations and plans are; the target keeps its size. */
	readonly flat: boolean;
}

/** The picture, and what of it is free of cards; CSS pixels. */
export interface Frame {
	readonly width: number;
	readonly height: number;
	readonly free: {
		readonly left: number;
		readonly top: number;
		readonly right: number;
		readonly bottom: number;
	};
}

/** Half of the angle the picture takes in from foot to head (rad). */
export const HALF_VIEW = (16 * Math.PI) / 180;
const HIGHEST = Math.PI / 2;
/** From underneath, soffits are looked at too. */
const LOWEST = (-80 * Math.PI) / 180;
/** Nearer than this (m) nothing is looked at, nor farther. */
const [NEAREST, FARTHEST] = [0.05, 20_000];

/** Towards the eye, to the right of its picture, and up in it. */
export function axesOf({ turn, rise }: Pick<Pose, 'turn' | 'rise'>): {
	readonly back: THREE.Vector3;
	readonly right: THREE.Vector3;
	readonly up: THREE.Vector3;
} {
	const level = Math.cos(rise);
	const back = new THREE.Vector3(level * Math.sin(turn), -level * Math.cos(turn), Math.sin(rise));
	const right = new THREE.Vector3(Math.cos(turn), Math.sin(turn), 0);
	return { back, right, up: back.clone().cross(right) };
}

export function placeOf({ target, turn, rise, distance }: Pose): THREE.Vector3 {
	return target.clone().addScaledVector(axesOf({ turn, rise }).back, distance);
}

/** Turned about a point, which stays where it is in the picture. @param by to the right, and upwards (rad) */
export function turned(pose: Pose, about: THREE.Vector3, [across, upwards]: readonly [number, number]): Pose {
	const turn = pose.turn + across;
	const rise = Math.min(HIGHEST, Math.max(LOWEST, pose.rise + upwards));
	const [from, to] = [axesOf(pose), axesOf({ turn, rise })];
	const arm = pose.target.clone().sub(about);
	const target = about
		.clone()
		.addScaledVector(to.right, arm.dot(from.right))
		.addScaledVector(to.up, arm.dot(from.up))
		.addScaledVector(to.back, arm.dot(from.back));
	return { ...pose, target, turn, rise };
}

/** Nearer to a point, which stays where it is in the picture. @param factor what the distance to it becomes, of what it is */
export function nearer(pose: Pose, about: THREE.Vector3, factor: number): Pose {
	const distance = Math.min(FARTHEST, Math.max(NEAREST, pose.distance * factor));
	const share = distance / pose.distance;
	return { ...pose, distance, target: about.clone().lerp(pose.target, share) };
}

/** Moved so that a point goes with the pointer. @param by of the pointer, CSS pixels */
export function moved(
	pose: Pose,
	point: THREE.Vector3,
	by: readonly [number, number],
	{ height }: Frame
): Pose {
	const { back, right, up } = axesOf(pose);
	const depth = pose.flat ? pose.distance : placeOf(pose).sub(point).dot(back);
	const pixel = (2 * Math.tan(HALF_VIEW) * Math.max(NEAREST, depth)) / height;
	const target = pose.target
		.clone()
		.addScaledVector(right, -by[0] * pixel)
		.addScaledVector(up, by[1] * pixel);
	return { ...pose, target };
}

export const cornersOf = ({ min, max }: THREE.Box3): THREE.Vector3[] =>
	Array.from(
		{ length: 8 },
		(_, k) => new THREE.Vector3(k & 1 ? max.x : min.x, k & 2 ? max.y : min.y, k & 4 ? max.z : min.z)
	);

/**
 * Looking at a box as near as all of it is seen within what is free of the picture.
 * @param box m @param margin left round it, of what is free
 */
export function fitted(
	box: THREE.Box3,
	stance: Pick<Pose, 'turn' | 'rise' | 'flat'>,
	{ width, height, free }: Frame,
	margin = 0.06
): Pose {
	const { back, right, up } = axesOf(stance);
	const centre = box.getCenter(new THREE.Vector3());
	const corners = cornersOf(box).map((corner) => corner.sub(centre));
	const depths = corners.map((corner) => (stance.flat ? 0 : corner.dot(back)));
	/** Tangents of the view, by which the eye is moved aside and how far off it has to be, in one direction of the picture. */
	const along = (way: THREE.Vector3, size: number, before: number, after: number) => {
		const middle = (before - after) / 2;
		const half = Math.max(0.1 * size, (size - before - after) / 2) * (1 - margin);
		const [low, high] = [middle - half, middle + half].map(
			(pixels) => (pixels * 2 * Math.tan(HALF_VIEW)) / height
		);
		const reach = corners.map((corner) => corner.dot(way));
		const most = Math.max(...reach.map((at, k) => at + high! * depths[k]!));
		const least = Math.min(...reach.map((at, k) => at + low! * depths[k]!));
		return {
			distance: (most - least) / (high! - low!),
			aside: (distance: number) => (most + least - (high! + low!) * distance) / 2
		};
	};
	const across = along(right, width, free.left, free.right);
	const upwards = along(up, height, free.bottom, free.top);
	const distance = Math.max(
		20 * NEAREST,
		Math.max(...depths) + 20 * NEAREST,
		across.distance,
		upwards.distance
	);
	const target = centre
		.addScaledVector(right, across.aside(distance))
		.addScaledVector(up, upwards.aside(distance));
	return { target, distance, turn: stance.turn, rise: stance.rise, flat: stance.flat };
}

/** The turn and rise from which a face that looks along a normal is seen best: from a little above, never from below ground. */
export function facing(normal: THREE.Vector3, { turn }: Pick<Pose, 'turn'>): Pick<Pose, 'turn' | 'rise'> {
	const { x, y, z } = normal;
	const level = Math.hypot(x, y);
	// Of what lies flat any turn is as good: the one that is.
	const rise = Math.max(-0.35, Math.min(1.3, Math.atan2(z, level)));
	return { turn: level < 0.05 ? turn : Math.atan2(x, -y), rise };
}

/** Part of the way from one to another; turns the shorter way round. @param share 0 to 1 */
export function between(a: Pose, b: Pose, share: number): Pose {
	const whole = 2 * Math.PI;
	const across = ((((b.turn - a.turn) % whole) + 1.5 * whole) % whole) - whole / 2;
	return {
		target: a.target.clone().lerp(b.target, share),
		turn: a.turn + share * across,
		rise: a.rise + share * (b.rise - a.rise),
		distance: a.distance * (b.distance / a.distance) ** share,
		flat: share < 1 ? a.flat && b.flat : b.flat
	};
}
