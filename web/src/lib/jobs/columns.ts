/** The columns of the bench: of each line, and of the names above them. Narrower screens have two lines for a job. */
export const JOB_COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,8fr)_minmax(0,8fr)_8rem_4.5rem_8rem_3rem]';
