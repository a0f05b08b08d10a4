/** The command line as other people's scripts use it: what goes in, what comes out, with which exit code. */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  watch,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test, vi } from 'vitest';
import { CACHE, copyOfDemo, tavro } from '../support/command-line';
import { MomentResult, PlayResult, TestReport, WhyResult } from '../../src/core/workspace/schemas';
import { someOf, thorough } from '../support/thorough';

const broken = () =>
  copyOfDemo({
    file: 'forms/berth_visit/behaviours/20-pilot.ts',
    from: '"fairway_buoy"',
    to: '"inner_mark"',
  });

describe('tavro test', () => {
  test('passes on the demo with exit 0', () => {
    const { status, stdout } = tavro(['test', 'demo']);
    expect(status).toBe(0);
    expect(stdout.trimEnd().split('\n').at(-1)).toBe('27 passed, 0 failed');
  });

  test('names file, step and difference of a failed expectation, with exit 1', () => {
    const folder = broken();
    const { status, stdout } = tavro(['test', folder]);
    expect(status).toBe(1);
    expect(stdout).toContain(
      `${folder}/forms/berth_visit/scenarios/pilot.json: step 1: pilot_boarding.value is "inner_mark", expected "fairway_buoy". Pilot details, line 21, said so last.`,
    );
  });

  test('reports as JSON of the published schema, as JUnit and as TAP', () => {
    const folder = broken();
    const report = TestReport.parse(
      JSON.parse(tavro(['test', folder, '--form', 'berth_visit', '--reporter', 'json']).stdout),
    );
    expect(report.scenarios.map(({ name, passed }) => [name, passed])).toEqual([
      ['agent', true],
      ['berths', true],
      ['cargo', true],
      ['dues', true],
      ['from-vessel', true],
      ['pilot', false],
      ['start-over', true],
    ]);
    expect(tavro(['test', folder, '--form', 'berth_visit', '--reporter', 'junit']).stdout).toMatch(
      /<testsuite name="berth_visit" tests="7" failures="1">/,
    );
    expect(tavro(['test', folder, '--form', 'berth_visit', '--reporter', 'tap']).stdout).toMatch(
      /^TAP version 14\n1\.\.7\nok 1 .*\n[^]*not ok 6 - /,
    );
  });

  test('writes the lines that scenarios reached as LCOV', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'tavro-')), 'lcov.info');
    expect(tavro(['test', 'demo', '--form', 'berth_visit', '--coverage', file]).status).toBe(0);
    const records = readFileSync(file, 'utf8')
      .split('end_of_record\n')
      .filter((record) => record !== '');
    // Its own five, the one for several forms, and the module that they use.
    expect(records).toHaveLength(7);
    const arrival = records[0]!;
    expect(arrival).toContain('SF:demo/forms/berth_visit/behaviours/10-arrival.ts\n');
    // No scenario presses "stay a week" without an arrival, so its warning is the gap.
    const missed = [...arrival.matchAll(/^DA:(\d+),0$/gm)].map(([, line]) => Number(line));
    expect(missed).toEqual([26, 27]);
    expect(Number(/^LF:(\d+)$/m.exec(arrival)![1]) - Number(/^LH:(\d+)$/m.exec(arrival)![1])).toBe(
      missed.length,
    );
  });

  test('a broken workspace is exit 2 with file, line and path', () => {
    const folder = copyOfDemo({
      file: 'forms/berth_visit/form.json',
      from: '"name": "dues",\n              "label": "Dues",\n              "kind": "money"',
      to: '"kind": "mony"',
    });
    const { status, stderr } = tavro(['test', folder]);
    expect(status).toBe(2);
    expect(stderr).toMatch(
      /^forms\/berth_visit\/form\.json:\d+: pages\.1\.sections\.1\.fields\.1\.kind: /,
    );
  });

  test.each(
    someOf<[string[], string]>(
      [
        [['test'], 'One workspace folder has to be named'],
        [['test', 'nowhere'], 'cannot read the folder nowhere'],
        [
          ['test', 'demo', '--form', 'x'],
          'there is no form "x". There is berth_visit, crew_change, vessel, waste_declaration, works_permit.',
        ],
        [['test', 'demo', '--scenario', 'x'], 'there is no scenario "x"'],
        [['test', 'demo', '--reporter', 'x'], 'there is no reporter "x"'],
        [['fly', 'demo'], 'there is no command "fly"'],
        [['test', 'demo', '--fly'], 'tavro test takes no --fly.'],
        [['check', 'demo', '--tape'], 'tavro check takes no --tape.'],
        [['play', 'demo', '--tape=yes'], '--tape takes no value.'],
        [['play', 'demo', '--steps'], '--steps needs a value: --steps FILE.'],
        [['test', 'demo', '--form', 'vessel', '--form', 'vessel'], '--form is there twice.'],
        [['constructor', 'demo'], 'there is no command "constructor".'],
      ],
      4,
    ),
  )('a wrong call is exit 2 with what to do: %j', (args, says) => {
    const { status, stderr } = tavro(args);
    expect([status, stderr.includes(says)]).toEqual([2, true]);
  });
});

describe('tavro play', () => {
  test('prints the state of every part, what was said, and what would be saved', () => {
    const steps = {
      open: { as: 'teo', launch: { vessel: 'Aurelle' } },
      steps: [{ set: 'vessel', to: 'x' }, { set: 'pilot_choice', to: 'own' }, { submit: true }],
    };
    const { status, stdout } = tavro(
      ['play', 'demo', '--form', 'berth_visit', '--steps', '-'],
      JSON.stringify(steps),
    );
    expect(status).toBe(0);
    const result = PlayResult.parse(JSON.parse(stdout));
    expect(result.parts.pilot_licence).toMatchObject({ shown: true, required: true });
    expect(result['@refused']).toEqual([{ step: 1, why: 'Vessel is locked' }]);
    expect(result['@submit']).toMatchObject({ saved: false, stoppedBy: 'vessel_kind' });
    expect(result).not.toHaveProperty('tape');
  });

  test('prints the tape when asked, the same each time', () => {
    const play = () =>
      tavro(
        ['play', 'demo', '--form', 'berth_visit', '--steps', '-', '--tape'],
        '[{"set": "pilot_choice", "to": "own"}]',
      ).stdout;
    expect(PlayResult.parse(JSON.parse(play())).tape!.length).toBeGreaterThan(10);
    expect(play()).toBe(play());
  });

  test('steps that are none are named by line', () => {
    const { status, stderr } = tavro(
      ['play', 'demo', '--form', 'berth_visit', '--steps', '-'],
      '[\n  {"set": "vessel"}\n]',
    );
    expect([status, stderr.startsWith('standard input:')]).toEqual([2, true]);
  });
});

describe('tavro types and check', () => {
  test('types prints the form as declarations', () => {
    const { status, stdout } = tavro(['types', 'demo', '--form', 'berth_visit']);
    expect(status).toBe(0);
    expect(stdout).toContain(
      'readonly pilot_choice: ChoiceField<"none" | "own" | "harbour_pilot">;',
    );
  });

  test('check finds nothing in the demo, and a slip with its place', () => {
    expect(tavro(['check', 'demo'])).toMatchObject({ status: 0, stdout: 'nothing found\n' });
    const folder = copyOfDemo({
      file: 'forms/berth_visit/behaviours/20-pilot.ts',
      from: 'choice === "harbour_pilot" ||',
      to: 'choice === "Harbour pilot" ||',
    });
    const { status, stdout } = tavro(['check', folder]);
    expect(status).toBe(1);
    expect(stdout).toMatch(
      /behaviours\/20-pilot\.ts:5:\d+: error: “Harbour pilot” is a label of Pilot \(pilot_choice\), which holds keys\. .* \(label-for-key\)/,
    );
    expect(stdout).toMatch(/scenarios\/pilot\.json:1:1: step 1: error: .* \(scenario\)/);
  });

  test('check names parts that wait for a script', () => {
    const folder = copyOfDemo();
    rmSync(join(folder, 'forms/works_permit/behaviours/30-times.ts'));
    rmSync(join(folder, 'forms/works_permit/scenarios'), { recursive: true });
    const { status, stdout } = tavro(['check', folder, '--form', 'works_permit']);
    expect(status).toBe(1);
    expect(stdout.split('\n').slice(0, 1)).toEqual([
      `${folder}/forms/works_permit/form.json:1:1: next_day: warning: The button Move to the next day (next_day) does nothing when it is pressed: no behaviour ties on.click to it. (idle-part)`,
    ]);
  });

  test('types makes the folder one that any TypeScript editor understands', () => {
    const folder = copyOfDemo();
    expect(
      tavro(['types', folder])
        .stdout.split('\n')
        .filter((line) => line.startsWith('wrote ')),
    ).toHaveLength(13);
    // The compiler on its own, without Tavro, finds the demo sound and a slip where it is.
    const compile = (form: string) =>
      spawnSync('node_modules/.bin/tsc', ['-p', join(folder, form)], { encoding: 'utf8' });
    for (const form of [
      'forms/berth_visit',
      'forms/crew_change',
      'forms/vessel',
      'forms/waste_declaration',
      'forms/works_permit',
      'shared',
    ])
      expect(compile(form)).toMatchObject({ status: 0, stdout: '' });
    const file = join(folder, 'forms/vessel/behaviours/20-visits.ts');
    writeFileSync(
      file,
      readFileSync(file, 'utf8').replace(
        'fields.standing.value === "new"',
        'fields.standing.value === "Not seen yet"',
      ),
    );
    expect(compile('forms/vessel').stdout).toContain('20-visits.ts(4,25): error TS2367');
    // What was written is no part of the workspace.
    expect(tavro(['test', folder, '--form', 'vessel']).stdout).toContain('passed');
  });
});

const TWO_STEPS = JSON.stringify([
  { set: 'length', to: 120 },
  { set: 'draught', to: 6.4 },
]);

describe('tavro why', () => {
  const why = (args: string[], input = TWO_STEPS) =>
    tavro(['why', 'demo', '--form', 'berth_visit', '--steps', '-', ...args], input);

  test('prints the line, the conditions and what it depends on down to the steps, as the schema says', () => {
    const { status, stdout } = why(['--part', 'berth', '--aspect', 'options']);
    expect(status).toBe(0);
    const result = WhyResult.parse(JSON.parse(stdout));
    expect(result.question).toEqual({ part: 'berth', aspect: 'options', step: 2 });
    expect(result.why).toMatchObject({
      decided: 'said',
      line: 13,
      value: ['nq3', 'nq4', 'om1', 'om2'],
      run: { behaviour: '30-berths' },
    });
    const length = result.why.because.find((one) => one?.part === 'length');
    expect(length).toMatchObject({ decided: 'entered', value: 120, because: [] });
    expect(result.notOffered.find(({ key }) => key === 'nq1')).toMatchObject({
      by: { line: 10, comparisons: [{ left: { value: 6.2 }, right: { value: 6.9 } }] },
    });
  });

  test('says the same in sentences, at whatever step', () => {
    const { stdout } = why(['--part', 'berth', '--aspect', 'options', '--words']);
    const lines = stdout.split('\n');
    expect(lines[0]).toContain('Berth offers 4 options: rule “berths that fit”');
    expect(lines).toContain(
      '  Length over all is 120 because Mira Oldane set Length over all to 120 (step 1).',
    );
    expect(lines).toContain(
      'North quay 1 ("nq1") is not offered: line 10 left it out, since 6.2 < 6.9.',
    );
    const opening = why(['--part', 'berth', '--aspect', 'options', '--words', '--at', '0']);
    expect(opening.stdout).toContain('Berth offers 11 options');
  });

  test('asks about a cell by its place, wherever its row stands', () => {
    const steps = JSON.stringify([
      { addRow: 'cargo', with: { goods: 'Gravel', weight: 12 } },
      { addRow: 'cargo', with: { goods: 'Salt', weight: 5 } },
    ]);
    const { status, stdout } = why(
      ['--part', 'cargo[1].weight', '--aspect', 'value', '--words'],
      steps,
    );
    expect(status).toBe(0);
    expect(stdout).toContain('is 5');
  });

  test('goes on from a sum to its rows, and says what submitting came to', () => {
    const steps = JSON.stringify([
      { addRow: 'cargo', with: { goods: 'Gravel', weight: 12 } },
      { addRow: 'cargo', with: { goods: 'Salt', weight: 5 } },
      { submit: true },
    ]);
    const sum = why(['--part', 'cargo', '--aspect', 'hint', '--words'], steps);
    expect(sum.stdout).toContain('is 17: 12 in row 1 and 5 in row 2.');
    expect(sum.stdout).toContain('when Mira Oldane added a row to Cargo on board (step 2).');
    const submitted = why(['--part', '@submit'], steps);
    const { why: answer } = WhyResult.parse(JSON.parse(submitted.stdout));
    expect(answer).toMatchObject({ decided: 'checked', step: 3, value: { saved: false } });
    expect(answer.because.some((one) => one?.aspect === 'required')).toBe(true);
  });

  test('says why not, with near misses', () => {
    const folder = copyOfDemo({
      file: 'forms/berth_visit/behaviours/20-pilot.ts',
      from: '"harbour_pilot"',
      to: '"Harbour pilot"',
    });
    const { stdout } = tavro(
      ['why', folder, '--form', 'berth_visit', '--steps', '-', '--part', 'pilot', '--words'],
      JSON.stringify([{ set: 'pilot_choice', to: 'harbour_pilot' }]),
    );
    expect(stdout).toMatch(/“Harbour pilot” is the label of an option/);
  });

  test.each(
    someOf<[string[], string]>(
      [
        [['--part', 'nothing'], 'has no part "nothing" then. There is'],
        [['--part', 'cargo_list[9]'], 'has no part "cargo_list[9]" then'],
        [['--part', 'berth', '--at', '7'], '--at 7 is no step: 0 is the opening, 2 the last step.'],
        [['--part', 'berth', '--aspect', 'colour'], '--aspect is one of shown, value'],
        [[], 'say with --part which part is asked about.'],
      ],
      3,
    ),
  )('%j is refused, with what to do', (args, says) => {
    const { status, stderr } = why(args);
    expect(status).toBe(2);
    expect(stderr).toContain(says);
  });
});

describe('tavro play --at', () => {
  const at = (moment: string) =>
    tavro(['play', 'demo', '--form', 'berth_visit', '--steps', '-', '--at', moment], TWO_STEPS);

  test('prints the form and the variables right before a line runs', () => {
    const { status, stdout } = at('2:30-berths:13');
    expect(status).toBe(0);
    const { at: where, variables, parts } = MomentResult.parse(JSON.parse(stdout));
    expect(where).toMatchObject({
      step: 2,
      behaviour: '30-berths',
      run: 'berths that fit',
      line: 13,
      statement: 'fields.berth.options = fitting;',
    });
    expect(variables).toMatchObject({ draught: 6.4, length: 120 });
    expect(parts.draught).toMatchObject({ value: 6.4 });
  });

  test('asks which behaviour where several have run the line, and says what never ran', () => {
    expect(at('0:5').stderr).toMatch(/line 5 ran in .+ and .+: say which, such as --at 0:/);
    expect(at('2:30-berths:1').stderr).toContain('line 1 of 30-berths did not run in step 2.');
    expect(at('9:1').stderr).toContain('there is no step 9');
    expect(at('x').stderr).toContain('is no moment: write STEP:LINE');
    expect(at('x').status).toBe(2);
  });
});

test('a recording is played as it was kept, and asked why of', () => {
  const recording = JSON.stringify({
    recording: 1,
    form: 'berth_visit',
    release: 1,
    keptAt: '2031-05-02T09:00:00Z',
    because: 'asked',
    says: '',
    masked: false,
    opening: {
      person: { key: 'teo', name: 'Teo Varrick', roles: ['agent'] },
      record: null,
      launch: {},
      clock: Date.parse('2031-05-02T09:00:00Z'),
      seed: 1,
      newId: '12',
    },
    steps: [{ set: 'length', to: 120, at: 40 }],
    ended: null,
  });
  const { status, stdout } = tavro(['play', 'demo', '--steps', '-'], recording);
  expect(status).toBe(0);
  const result = PlayResult.parse(JSON.parse(stdout));
  expect(result.parts.length).toMatchObject({ value: 120 });
  expect(JSON.stringify(result['@messages'])).toContain('Teo Varrick');
  const asked = tavro(
    ['why', 'demo', '--steps', '-', '--part', 'length', '--aspect', 'value', '--words'],
    recording,
  );
  expect(asked.stdout).toContain('Length over all is 120 because Teo Varrick set');
  const other = tavro(['play', 'demo', '--form', 'vessel', '--steps', '-'], recording);
  expect(other.stderr).toContain('the recording is of the form berth_visit, not of vessel.');
});

test.each(someOf(['test', 'play', 'why', 'types', 'check'] as const, 3))(
  '%s --help says what it takes',
  (command) => {
    const { status, stdout } = tavro([command, '--help']);
    expect([status, stdout]).toEqual([0, expect.stringContaining(`usage: tavro ${command} DIR`)]);
    expect(stdout).toContain('--form FORM');
  },
);

describe('what was worked out before', () => {
  const cache = join(CACHE, 'kept');
  const check = (folder: string) =>
    tavro(['check', folder], '', cache).stdout.replaceAll(folder, '');
  const kept = (sort: string) => readdirSync(cache).filter((name) => name.startsWith(sort)).length;

  test('is taken again, and comes out the same; what changed is worked out again, and no more', () => {
    const folder = broken();
    const cold = check(folder);
    expect(cold).toContain('scenarios/pilot.json');
    const [scripts, found] = [kept('script'), kept('found')];
    // Of five forms, and of what they share.
    expect(found).toBe(6);
    expect(check(folder)).toBe(cold);
    expect([kept('script'), kept('found')]).toEqual([scripts, found]);
    const file = join(folder, 'forms/vessel/behaviours/30-measures.ts');
    writeFileSync(file, `${readFileSync(file, 'utf8')}\nfields.imo.value = 7;\n`);
    expect(check(folder)).not.toBe(cold);
    expect([kept('script'), kept('found')]).toEqual([scripts + 1, found + 1]);
  });

  test('of files is taken while none has changed, and the same errors are found', () => {
    const folder = copyOfDemo();
    const passed = tavro(['test', folder], '', cache);
    const files = kept('files');
    expect(tavro(['test', folder], '', cache).stdout).toBe(passed.stdout);
    expect(kept('files')).toBe(files);
    const file = join(folder, 'forms/vessel/form.json');
    writeFileSync(file, readFileSync(file, 'utf8').replace('"vessel"', '"vessels"'));
    const broken = tavro(['test', folder], '', cache);
    expect(broken.stderr).toContain('is "vessels", but its folder is called "vessel"');
    expect(tavro(['test', folder], '', cache).stderr).toBe(broken.stderr);
    expect(kept('files')).toBe(files);
  });

  test.runIf(thorough)('is worked out again where it cannot be read, and needs no folder', () => {
    const folder = join(mkdtempSync(join(tmpdir(), 'tavro-')), 'ferry');
    expect(tavro(['new', folder]).status).toBe(0);
    const cold = check(folder);
    for (const name of readdirSync(cache)) writeFileSync(join(cache, name), '{"code": 7');
    expect(check(folder)).toBe(cold);
    expect(tavro(['check', folder], '', 'off').stdout).toBe(cold);
    expect(tavro(['check', folder], '', '/proc/nowhere').stdout).toBe(cold);
  });
});

describe('a workspace folder', () => {
  const fresh = () => join(mkdtempSync(join(tmpdir(), 'tavro-')), 'ferry');

  test('begins with a form, a behaviour and a scenario that passes, without problems', () => {
    const folder = fresh();
    expect(tavro(['new', folder, '--title', 'Ferry office']).status).toBe(0);
    expect(tavro(['test', folder]).stdout).toContain('1 passed, 0 failed');
    expect(tavro(['check', folder])).toMatchObject({ status: 0, stdout: 'nothing found\n' });
    expect(tavro(['format', folder, '--check'])).toMatchObject({ status: 0, stdout: '' });
    expect(JSON.parse(readFileSync(join(folder, 'workspace.json'), 'utf8'))).toMatchObject({
      title: 'Ferry office',
    });
    expect(tavro(['new', folder])).toMatchObject({
      status: 2,
      stderr: `tavro: the folder ${folder} is not empty.\n`,
    });
  });

  test('is put into its canonical form, and then stays as it is', () => {
    expect(tavro(['format', 'demo', '--check'])).toMatchObject({ status: 0, stdout: '' });
    const folder = copyOfDemo();
    const file = join(folder, 'forms/vessel/form.json');
    const canonical = readFileSync(file, 'utf8');
    const { title, name, ...rest } = JSON.parse(canonical) as Record<string, unknown>;
    writeFileSync(file, JSON.stringify({ ...rest, title, name }));
    const script = join(folder, 'forms/vessel/behaviours/10-register.ts');
    const text = readFileSync(script, 'utf8');
    writeFileSync(script, text.trimEnd().replace(/\n/g, '\r\n'));
    expect(tavro(['format', folder, '--check'])).toMatchObject({
      status: 1,
      stdout: `not formatted: ${file}\nnot formatted: ${script}\n`,
    });
    expect(tavro(['format', folder]).status).toBe(0);
    expect([readFileSync(file, 'utf8'), readFileSync(script, 'utf8')]).toEqual([canonical, text]);
    expect(tavro(['format', folder])).toMatchObject({ status: 0, stdout: '' });
  });

  test('is told apart from another in words', () => {
    const folder = copyOfDemo({
      file: 'forms/vessel/form.json',
      from: '"label": "Length over all"',
      to: '"label": "Length"',
    });
    expect(tavro(['diff', 'demo', folder])).toEqual({
      status: 1,
      stdout: 'forms/vessel/form.json: Length (length): label "Length over all" → "Length"\n',
      stderr: '',
    });
    const script = join(folder, 'forms/vessel/behaviours/10-register.ts');
    writeFileSync(script, `${readFileSync(script, 'utf8')}// More.\n`);
    const count = readFileSync(script, 'utf8').split('\n').length - 1;
    expect(tavro(['diff', 'demo', folder]).stdout).toContain(
      `forms/vessel/behaviours/10-register.ts: 1 line added, 0 lines removed\n    + ${count}: // More.\n`,
    );
    expect(tavro(['diff', 'demo', 'demo'])).toMatchObject({ status: 0, stdout: '' });
    expect(tavro(['diff', 'demo']).stderr).toContain('Two workspace folders have to be named.');
  });
});

describe('--watch', () => {
  test('does it again after a change, names a broken file, and goes on', async () => {
    const folder = copyOfDemo();
    const child = spawn('node', ['dist/tavro.mjs', 'test', folder, '--form', 'vessel', '--watch'], {
      env: { ...process.env, TAVRO_CACHE: CACHE },
    });
    let heard = '';
    child.stdout.on('data', (text: Buffer) => (heard += text.toString()));
    child.stderr.on('data', (text: Buffer) => (heard += text.toString()));
    /** Waits until it has said this and waits again. */
    const says = (text: string) =>
      vi.waitFor(
        () => {
          expect(heard).toContain(text);
          expect(heard.slice(heard.lastIndexOf(text))).toContain(`watching ${folder}\n`);
        },
        { timeout: 1_200_000, interval: 50 },
      );
    /** In one stroke: a file that is written in place is empty for a moment, which may be noticed. */
    const put = (file: string, text: string) => {
      writeFileSync(`${folder}.new`, text);
      renameSync(`${folder}.new`, file);
    };
    try {
      await says('8 passed, 0 failed');
      const file = join(folder, 'forms/vessel/scenarios/measures.json');
      const text = readFileSync(file, 'utf8');
      put(file, text.slice(0, 40));
      await says('forms/vessel/scenarios/measures.json:');
      heard = '';
      put(file, text);
      await says('8 passed, 0 failed');
      // What is no file of the workspace is not looked at.
      const said = async () => {
        heard = '';
        await new Promise((resolve) => setTimeout(resolve, 1000));
        return heard;
      };
      // One change may be noticed twice, and done twice.
      await vi.waitFor(async () => expect(await said()).toBe(''), { timeout: 1_200_000 });
      writeFileSync(join(folder, 'notes.txt'), 'x');
      expect(await said()).toBe('');
      expect(child.exitCode).toBeNull();
    } finally {
      child.kill();
    }
  });
});

test('killed at any moment, every file is as it was or as it should be', async () => {
  const folder = copyOfDemo();
  const scenarios = join(folder, 'forms/vessel/scenarios');
  const odd = '{ "title": "T", "open": { "as": "mira" }, "steps": [] }';
  const whole = '{\n  "title": "T",\n  "open": {\n    "as": "mira"\n  },\n  "steps": []\n}\n';
  const names = Array.from({ length: 400 }, (_, i) => `s${i}.json`);
  let between = 0;
  for (const after of thorough ? [0, 10, 30, 60, 120] : [10, 60]) {
    for (const name of names) writeFileSync(join(scenarios, name), odd);
    const watcher = watch(scenarios);
    const begun = once(watcher, 'change');
    const child = spawn('node', ['dist/tavro.mjs', 'format', folder], { stdio: 'ignore' });
    const gone = new Promise((resolve) => child.once('exit', resolve));
    await begun;
    watcher.close();
    setTimeout(() => child.kill('SIGKILL'), after);
    await gone;
    const texts = names.map((name) => readFileSync(join(scenarios, name), 'utf8'));
    expect(new Set(texts.filter((text) => text !== odd && text !== whole))).toEqual(new Set());
    if (new Set(texts).size === 2) between++;
    // What was being written is no file of the workspace.
    expect(tavro(['diff', folder, folder]).status).toBe(0);
  }
  // Some were killed in the middle.
  expect(between).toBeGreaterThan(0);
}, 120_000);

describe('code that forms share', () => {
  test('counts in the coverage by its own file', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'tavro-')), 'lcov.info');
    expect(tavro(['test', 'demo', '--form', 'berth_visit', '--coverage', file]).status).toBe(0);
    const lcov = readFileSync(file, 'utf8');
    const dates = lcov.slice(lcov.indexOf('SF:demo/shared/dates.ts\n'));
    expect(dates).toMatch(/^SF:demo\/shared\/dates\.ts\n[^]*DA:5,[1-9]\d*\n/);
    expect(lcov).toContain('SF:demo/behaviours/90-start-over.ts\n');
  });

  test('is checked once, and a behaviour for several forms in each of them', () => {
    const folder = copyOfDemo();
    writeFileSync(join(folder, 'shared/dates.ts'), 'export const first = fields.vessel;\n');
    writeFileSync(
      join(folder, 'behaviours/95-more.ts'),
      '/** More.\n * @forms vessel, works_permit, nowhere */\nkeep("more", () => { fields.imo.hint = "x"; });\n',
    );
    const { status, stdout } = tavro(['check', folder]);
    expect(status).toBe(1);
    const lines = stdout.split('\n');
    expect(lines.filter((line) => line.startsWith(`${folder}/shared/dates.ts:1:`))).toEqual([
      expect.stringContaining('A shared module has no form of its own') as string,
    ]);
    expect(lines).toContainEqual(
      expect.stringMatching(
        /behaviours\/95-more\.ts:2:1: error: There is no form "nowhere"/,
      ) as string,
    );
    expect(lines).toContainEqual(
      expect.stringMatching(
        /behaviours\/95-more\.ts:3:\d+: in works_permit: error: There is no field "imo"/,
      ) as string,
    );
    expect(stdout).not.toMatch(/in vessel: error/);
    // What the module no longer exports fails where it is used.
    expect(stdout).toMatch(/40-dues\.ts:3:\d+: error: .*daysFromTo/);
  });
});
