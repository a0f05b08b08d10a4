/**
 * Limits on what people, scripts and requests may supply or keep busy, each with its reason. They hold whatever a form
 * says. What only tunes a piece of code, as the size of a cache, stands with that piece.
 */

const KIB = 1024;
const MIB = 1024 * KIB;
const SECOND = 1000;
const DAY = 24 * 60 * 60 * SECOND;

// What a workspace holds.

/** Characters of one behaviour. A hundred times what is written by hand; more keeps the checker busy for seconds. */
export const BEHAVIOUR_CHARACTERS = 500_000;
/** Behaviours of one form. Each is loaded at every opening, in about 0.1 ms. */
export const BEHAVIOURS_PER_FORM = 500;
/** Shared modules and behaviours for several forms of one workspace. Each form looks through their headers and imports. */
export const SHARED_SCRIPTS = 500;
/** Characters of a behaviour's file name: with folder and form it stays below what file systems take (255). */
export const BEHAVIOUR_NAME_CHARACTERS = 80;
/** Characters of a technical name: PostgreSQL cuts names at 63 (manual, 4.1.1), and indexes are named after columns. */
export const NAME_CHARACTERS = 60;
/** Characters of a title: what a heading shows on one line or two. */
export const TITLE_CHARACTERS = 120;
/** Scenarios of one form. All of them run in about a minute. */
export const SCENARIOS_PER_FORM = 1000;
/** Milliseconds that all scenarios of a form may take on the server, in a thread of their own: those of a thousand steps each and some. */
export const SCENARIOS_ON_SERVER = 60 * SECOND;
/** Runs of a form's scenarios that are listed, the newest first. Each stands for a change of results. */
export const RUNS_KEPT = 50;
/** Rows of a scenario's table of cases. Each is a session of its own, some 3 ms. */
export const CASES_PER_SCENARIO = 1000;
/** Combinations of one outcome grid; with more it is thinned out. */
export const COMBINATIONS_PER_GRID = 2000;
/** Inputs that one outcome grid varies: thinning so many takes up to a second, and nobody reads more. */
export const AXES_PER_GRID = 20;
/** Scenarios that start as one another, one after the other. */
export const BEGINNINGS = 20;
/** Records kept as samples of one form. They try a form out, they fill no archive. */
export const SAMPLES_PER_FORM = 500;
/** Columns of a table. More is a spreadsheet turned on its side. */
export const TABLE_COLUMNS = 500;
/** Lines of a CSV file: twice the rows of the largest table, so that empty ones and line ends in cells do not matter. */
export const TABLE_LINES = 1_000_000;
/** Bytes of one file of a workspace: a table of 500,000 rows. */
export const WORKSPACE_FILE_BYTES = 64 * MIB;
/** Files of one workspace that are unpacked from a zip: 200 forms with twenty files each, and some. */
export const FILES_PER_WORKSPACE = 10_000;
/** Bytes of all files of a workspace that is unpacked. */
export const WORKSPACE_BYTES = 128 * MIB;
/** Folders that can be opened which are listed. */
export const FOLDERS_LISTED = 200;
/** Records that are brought in from one file: entering each takes some 20 ms. */
export const RECORDS_BROUGHT = 20_000;
/** Records that are entered with one request, so that whoever brings them sees how it goes on. */
export const RECORDS_AT_ONCE = 50;
/** Characters of a JSON Schema or a page from which a form is made. */
export const FORM_SOURCE_CHARACTERS = 2_000_000;
/** Times something was taken that are offered to be undone, the newest first. */
export const TAKINGS_SHOWN = 5;
/** Records of each form that go out with a workspace, the newest first: enough to go on with; archives are exported. */
export const RECORDS_IN_FOLDER = 5000;
/** Levels of JSON in a file of a workspace. Definitions need about twelve; readers call themselves once a level. */
export const FILE_LEVELS = 60;
/** Levels of JSON in a value that is kept. Fewer than those of a file, which holds values some levels down. */
export const VALUE_LEVELS = 40;
/** Levels of a script's syntax tree. Written code stays far below a hundred; a chain of `else if` takes one for each. */
export const SYNTAX_LEVELS = 1000;

/** Workspaces of one installation. Each is a schema of some fifteen tables in the database. */
export const WORKSPACES = 500;
/** Milliseconds for which a workspace that was removed can be restored. */
export const REMOVED_WORKSPACE_KEPT = 30 * DAY;

// What is filled in.

/** Rows that one field may hold. More is not filled in by hand, and a rule may look at each. */
export const ROWS_PER_FIELD = 10_000;
/** Bytes of one file that is chosen in a form: a scanned document. It is held in memory while it is stored. */
export const CHOSEN_FILE_BYTES = 10 * MIB;
/** Files that one filling-in may keep, chosen and chosen again. A filling-in that nobody sends leaves them behind. */
export const FILES_PER_FILLING = 200;
/** Steps of one filling-in or scenario. The server replays them at once when the form is sent. */
export const STEPS_PER_SESSION = 5000;
/** Milliseconds for which a form that was begun and not sent is kept, on the server and in the browser. */
export const HALF_FILLED_KEPT = 30 * DAY;
/** Milliseconds by which a browser's clock may run ahead of the server's: clocks set by hand differ by less. */
export const CLOCK_AHEAD = 60 * SECOND;

// What a script may do. Fuel and polls end a run at the same place on every machine, however busy it is; time only ends
// what neither sees.

/** Loop rounds and function calls of one run. About 0.2 s in the slowest machine that counts. */
export const FUEL_PER_RUN = 250_000;
/** Fuel that going on after an `await` burns: it takes the machine about so many loop rounds. */
export const FUEL_PER_AWAIT = 50;
/** How deep functions of a script may call one another. Below what the machine's own stack takes. */
export const CALL_DEPTH = 100;
/** How often one handler or rule may run within a step, unless the form says otherwise: more is a circle. */
export const RUNS_PER_STEP = 100;
/** The most that a form may allow instead: it ends long before the time for a step does. */
export const RUNS_AT_MOST = 10_000;
/** Submissions that scripts may ask for, one after the other, in one step of a person's: more is a circle. */
export const SUBMISSIONS_PER_STEP = 10;
/** Calls of services that may wait at once in one session. */
export const CALLS_WAITING = 1000;
/** The longest that `after` waits, in milliseconds: no form stays open for longer than a day. */
export const AFTER_AT_MOST = DAY;
/** Milliseconds on the session's clock for which a submission or a turn of pages waits for open runs. */
export const SUBMIT_WAITS = 30 * SECOND;
/** Milliseconds after which a service answers that says nothing else: a usual answer over a network. */
export const USUAL_DELAY = 300;
/** Characters of what a script throws or says; longer texts drown what shows them. */
export const SAID_CHARACTERS = 2000;
/** Bytes of a machine's memory: what scripts hold, and the little that runs beside them. */
export const MACHINE_BYTES = 96 * MIB;
/** Bytes of a machine's stack. More lets deeply nested data overflow the host's own. */
export const MACHINE_STACK_BYTES = 128 * KIB;
/**
 * How often the machine may ask within one run whether to go on, once in ten thousand calls, branches and steps of a
 * pattern. Scripts that end by their fuel ask 150 times at most; a pattern that backtracks uses these up in about a second.
 */
export const RUN_POLLS = 1200;
/** The same while one text is checked against a pattern: honest ones never ask. */
export const PATTERN_POLLS = 250;

/**
 * Milliseconds that the thread of a search works without a sign of life before it is ended. A session of the search is
 * over in a hundredth of it; what takes longer is a built-in that never yields.
 */
export const SEARCH_SILENCE = 10 * SECOND;
/** Sessions that a search from one seed plays unless said: what it has not met by then it hardly meets. */
export const SEARCH_SESSIONS = 1500;
/** Sessions that `tavro compare` plays of each form unless told otherwise: some seconds. */
export const COMPARED_SESSIONS = 2000;

/**
 * Real milliseconds without any sign of a machine after which nobody waits for it any more. Not a limit on scripts, which
 * are measured by what they have worked: on the busiest machine seen (load 24 on two cores) what takes longest between two
 * signs takes a tenth of it.
 */
export const ENGINE_UNHEARD = 120 * SECOND;

/** Details of one run that are kept: a loop of a thousand rounds over ten statements. */
export const DETAILS_PER_RUN = 20_000;
/** Values that are kept of what is asked on the way: more is a column nobody reads to its end. */
export const ASKED_IN_ALL = 5000;

// What a request may bring or ask for.

/** The largest number of a revision, a release or a recording: PostgreSQL's integer (manual, 8.1.1). */
export const LARGEST_INTEGER = 2 ** 31 - 1;
/** When a session's clock may stand, in milliseconds since 1970: the years 1 to 9998, which every date of a form can be. */
export const EARLIEST_CLOCK = -62_135_596_800_000;
export const LATEST_CLOCK = Date.UTC(9998, 11, 31);

/** Bytes of a request's body, unless it says otherwise. A filled-in form of thousands of steps stays far below it. */
export const REQUEST_BYTES = 2 * MIB;
/** Bytes of a request that brings a table: 100,000 rows as CSV. */
export const TABLE_REQUEST_BYTES = 32 * MIB;
/** Bytes of a zip that is brought. */
export const ZIP_BYTES = 32 * MIB;
/** Bytes that browsers go on sending once a page is left: 64 KiB in all (Fetch standard, keepalive), less a little. */
export const LEAVING_BYTES = 60 * KIB;
/**
 * Real milliseconds that a submission waits for a machine before it is asked to come again (503). Protects the queue; on a
 * busy machine more are asked to come again, and nothing is said about their forms.
 */
export const SUBMISSION_WAITS = 30 * SECOND;
/**
 * Real milliseconds that a submission may keep a machine before it is asked to come again (503). The engine ends scripts
 * by what they have worked long before.
 */
export const SUBMISSION_TAKES = 120 * SECOND;
/**
 * Real milliseconds that a task of the server waits for a thread before whoever asked is asked to come again (503).
 * Protects the queue. How much a task may work once it has one stands in `server/machines/tasks.ts`, and is no real time.
 */
export const TASK_WAITS = 60 * SECOND;
/**
 * Real milliseconds after which a task is given up (503), however little of that its thread could work, as one that waits
 * for a disk that never answers. Five times as long as any may work.
 */
export const TASK_TAKES = 300 * SECOND;
/** Megabytes of a task's thread: checking the largest form takes a quarter. */
export const TASK_MEGABYTES = 1500;
/** Letters that a search of records needs: shorter texts are in nearly every record. */
export const SEARCH_LETTERS = 3;

// What is shown at once; where there is more, it is said so.

/** Records on a page of a list: loaded in a tenth of a second, scrolled in a minute. */
export const RECORDS_PER_PAGE = 100;
/** Records that are counted for a list. Counting more costs more than it tells. */
export const RECORDS_COUNTED = 10_000;
/** Records that are counted for each form on the page of forms, which counts for all of them. */
export const RECORDS_COUNTED_PER_FORM = 1000;
/** Newest records offered to try a form with. */
export const RECORDS_ON_BENCH = 50;
/** Records in a list within a form; the whole list is a page of its own. */
export const CHILD_RECORDS = 50;
/** Recordings in the list of them. */
export const RECORDINGS_SHOWN = 200;
/** Recordings of one form that the server keeps by itself: a form that fails for everybody would fill the disk. */
export const RECORDINGS_BY_SERVER = 200;
/** Recordings of one form that people keep: whoever wants more removes some. */
export const RECORDINGS_BY_PEOPLE = 1000;
/** Bytes of a recording that the server keeps by itself: a filling-in of an hour is a tenth of it. */
export const RECORDING_BY_SERVER_BYTES = 256 * KIB;
/** Bytes of a recording that is brought in: the steps of the longest session, with the record that it began from. */
export const RECORDING_BYTES = 8 * MIB;
/** Filling-ins of one form whose steps may be kept: replaying so many takes a minute. */
export const KEPT_FILLINGS = 10_000;
/** Days that they may be kept: ten years. */
export const KEPT_FILLINGS_DAYS = 3650;
/** Bytes of the steps of one: what is longer is no sample of what people do. */
export const KEPT_FILLING_BYTES = 128 * KIB;
/** Filling-ins handed to a page at once. */
export const KEPT_FILLINGS_PER_PAGE = 250;
/** Accepted differences of one form: more has to be released first. */
export const ACCEPTED_DIFFERENCES = 500;
/** Characters of one of them: the values of a long list of options. */
export const ACCEPTED_CHARACTERS = 20_000;
/** Former versions to compare with that are offered. */
export const VERSIONS_SHOWN = 50;
/** Revisions in a history. */
export const REVISIONS_SHOWN = 100;
/** Removed forms that are offered to be restored. */
export const REMOVED_FORMS = 20;
/** Hits of a search in all scripts. Who gets more has to search for something else. */
export const SEARCH_HITS = 500;
/** Errors of one file that are named: whoever mends those reads it again. */
export const ERRORS_PER_FILE = 200;
