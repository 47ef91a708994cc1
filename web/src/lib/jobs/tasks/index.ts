import type { Component } from 'svelte';
import type { Schemas } from '$lib/api';
import FiguresTask from './FiguresTask.svelte';
import FindTask from './FindTask.svelte';
import HoldTask from './HoldTask.svelte';
import PlainTask from './PlainTask.svelte';
import type { TaskProps } from './props';
import SettingTask from './SettingTask.svelte';
import SignTask from './SignTask.svelte';
import SizeTask from './SizeTask.svelte';
import TimerTask from './TimerTask.svelte';
import TorqueTask from './TorqueTask.svelte';
import TurnTask from './TurnTask.svelte';

/** One component a kind of screen: a kind without one does not compile. */
export const SCREENS: { [K in Schemas['TaskOut']['screen']['kind']]: Component<TaskProps> } = {
	plain: PlainTask,
	find: FindTask,
	size: SizeTask,
	torque: TorqueTask,
	turn: TurnTask,
	setting: SettingTask,
	hold: HoldTask,
	figures: FiguresTask,
	timer: TimerTask,
	sign: SignTask
};
