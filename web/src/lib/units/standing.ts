import CalendarClock from '@lucide/svelte/icons/calendar-clock';
import CircleAlert from '@lucide/svelte/icons/circle-alert';
import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
import CircleCheck from '@lucide/svelte/icons/circle-check';

/** How a service that is due looks, by how it stands. */
export const STANDING = {
	overdue: { Icon: CircleAlert, tone: 'text-error', edge: 'border-l-error' },
	soon: { Icon: CalendarClock, tone: 'text-warning', edge: 'border-l-warning' },
	later: { Icon: CircleCheck, tone: 'text-success', edge: 'border-l-success' },
	unknown: { Icon: CircleHelp, tone: 'text-info', edge: 'border-l-info' }
};
