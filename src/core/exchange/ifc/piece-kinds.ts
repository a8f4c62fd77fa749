import type { GridSite } from '../../cladding/sites';
import type { Role } from '../../project/part-definition';

/** What pieces become in the file: an entity of the standard, with the sets of properties and quantities it has. */
export interface PieceKind {
	readonly entity: string;
	readonly predefined: string;
	readonly objectType: string | null;
	readonly properties: string;
	/** Whether that set says if it is outside. */
	readonly saysExternal: boolean;
	readonly quantities: 'Qto_PlateBaseQuantities' | 'Qto_MemberBaseQuantities' | null;
}

const roles: Record<Role, PieceKind> = {
	panel: {
		entity: 'IFCPLATE',
		predefined: 'CURTAIN_PANEL',
		objectType: null,
		properties: 'Pset_PlateCommon',
		saysExternal: true,
		quantities: 'Qto_PlateBaseQuantities'
	},
	mullion: {
		entity: 'IFCMEMBER',
		predefined: 'MULLION',
		objectType: null,
		properties: 'Pset_MemberCommon',
		saysExternal: true,
		quantities: null
	},
	louver: {
		entity: 'IFCSHADINGDEVICE',
		predefined: 'USERDEFINED',
		objectType: 'LOUVER',
		properties: 'Pset_ShadingDeviceCommon',
		saysExternal: true,
		quantities: null
	},
	structure: {
		entity: 'IFCMEMBER',
		predefined: 'MEMBER',
		objectType: null,
		properties: 'Pset_MemberCommon',
		saysExternal: true,
		quantities: null
	}
};

/** Where lines meet there are fittings, whatever role their part has. */
const onNodes: PieceKind = {
	entity: 'IFCDISCRETEACCESSORY',
	predefined: 'USERDEFINED',
	objectType: 'NODE',
	properties: 'Pset_ElementComponentCommon',
	saysExternal: false,
	quantities: null
};

/** What pieces on a kind of site become. */
export function pieceKind(over: GridSite, role: Role): PieceKind {
	if (over === 'node') return onNodes;
	if (over === 'line')
		return {
			...roles[role],
			properties: 'Pset_MemberCommon',
			quantities: 'Qto_MemberBaseQuantities'
		};
	return roles[role];
}
