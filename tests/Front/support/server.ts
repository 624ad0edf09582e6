import type { Api } from '@/api/client';

type Body = Record<string, unknown>;
type Mood = 'fine' | 'away' | 'lost' | 'out';
interface Asked {
  method: string;
  path: string;
  body: Body;
}

const ME = { id: 'u1', name: 'Tobias Reyle' };
export const SESSION = {
  user: { ...ME, email: 'tobias@skerrywick.test' },
  projects: [
    {
      id: 'p',
      code: 'SKR',
      name: 'Skerrywick Ferries',
      role: 'tester',
      may: ['read', 'see_evidence', 'work_on_defects', 'file_defects', 'record', 'write_cases'],
      policies: {},
    },
  ],
  demo: true,
} as unknown as Api['SessionState'];
const POLICIES: Partial<Api['PolicySet']> = {
  fail_sets_verdict: true,
  pass_sets_verdict: true,
  after_finishing: 'next_open',
  skip_wrap_up_on_pass: false,
};

/** A small server with one cycle: it keeps what it is told, each key once, and has its moods. */
export class Server {
  mood: Mood = 'fine';
  /** Refuses what this says something about. */
  refuse: (asked: Asked) => string | null = () => null;
  readonly asked: Asked[] = [];
  readonly attempts = new Map<string, Api['AttemptDetail']>();
  readonly known: Api['DefectLine'][] = [];
  stops: { id: string; key: string; title: string; why: string }[] = [];
  scratch = '';
  policies: Partial<Api['PolicySet']> = { ...POLICIES };
  private readonly answers = new Map<string, unknown>();

  constructor(steps = 4, rounds: Record<string, string>[] = []) {
    for (const n of [1, 2, 3]) this.attempts.set(`a${n}`, this.detail(n, steps, rounds));
  }

  get writes(): Asked[] {
    return this.asked.filter((a) => a.method !== 'GET');
  }

  attempt(id = 'a1'): Api['AttemptDetail'] {
    const found = this.attempts.get(id);
    if (!found) throw new Error(`There is no attempt ${id}.`);
    return found;
  }

  /** The verdicts of a round, in order. */
  verdicts(id = 'a1', round = 1): string[] {
    return this.attempt(id).rounds[round - 1]?.steps.map((s) => s.verdict) ?? [];
  }

  readonly fetch = async (input: string | URL | Request, init: RequestInit = {}): Promise<Response> => {
    const request = input instanceof Request ? input : null;
    const url = new URL(request?.url ?? String(input), 'http://localhost');
    const method = init.method ?? request?.method ?? 'GET';
    const raw = init.body instanceof Blob ? await init.body.text() : init.body;
    const body: Body =
      raw instanceof FormData
        ? Object.fromEntries(raw.entries())
        : typeof raw === 'string' && raw !== ''
          ? (JSON.parse(raw) as Body)
          : {};
    const asked = { method, path: url.pathname.replace('/api/v1', ''), body };
    if (this.mood === 'away') throw new TypeError('fetch failed');
    if (this.mood === 'out') return problem(401, 'You are signed out.');
    const key = new Headers(init.headers).get('Idempotency-Key');
    const again = key !== null && this.answers.has(key);
    if (!again) this.asked.push(asked);
    const why = again ? null : this.refuse(asked);
    if (why !== null) return problem(422, why, { step: [why] });
    const answer = again ? this.answers.get(key) : this.answer(asked);
    if (key !== null) this.answers.set(key, answer);
    if (this.mood === 'lost' && method !== 'GET') throw new TypeError('the answer was lost');
    if (answer === undefined) return problem(404, `There is no ${asked.path}.`);
    return Response.json(answer);
  };

  private answer({ method, path, body }: Asked): unknown {
    const [, area, id, what] = path.split('/');
    if (path === '/session') return SESSION;
    if (area === 'cycles') return what === 'trail' ? this.trail() : {};
    if (area === 'entries') return this.ofEntry(method, String(id), String(what));
    if (area === 'projects') return this.ofProject(method, String(what), body);
    if (area === 'cases' || area === 'defects') return { applied: true };
    if (area === 'evidence') return { applied: true };
    if (area !== 'attempts') return undefined;
    const attempt = this.attempts.get(String(id));
    if (!attempt) return undefined;
    if (method === 'GET' && what === 'defect-draft')
      return { title: `${attempt.title} – It broke`, body: 'Steps', expected: 'See 1.', actual: 'It broke.' };
    if (method === 'GET')
      return what === undefined ? structuredClone(attempt) : what === 'known-defects' ? this.known : [];
    return this.ofAttempt(attempt, String(what), body);
  }

  private ofEntry(method: string, id: string, what: string): unknown {
    if (what === 'stops') return { stops: method === 'GET' ? this.stops : [], lifted: [] };
    if (what === 'attempts') return structuredClone(this.attempt(`a${id.slice(1)}`));
    return { applied: true };
  }

  private ofProject(method: string, what: string, body: Body): unknown {
    const reason = (name: string): { value: string; name: string } => ({ value: name, name });
    switch (what) {
      case 'walk-setup':
        return {
          policies: this.policies,
          reasons_pass: [reason('With a remark')],
          reasons_fail: [reason('Known before')],
          reasons_blocked: [reason('Environment down'), reason('Data missing')],
          reasons_not_applicable: [reason('Other device')],
        };
      case 'scratch':
        if (method !== 'GET') this.scratch = String(body.text ?? '');
        return { text: this.scratch, updated_at: null };
      case 'planning-setup':
        return {
          builds: [
            { id: 'b1', name: '4.2.0-7' },
            { id: 'b2', name: '4.3.0-1' },
          ],
          environments: [
            {
              id: 'e1',
              name: 'Staging',
              address: '',
              build: { id: 'b2', name: '4.3.0-1' },
              notes: 'Emptied at night.',
            },
          ],
          configurations: [],
          axes: [],
        };
      case 'defects':
        return { applied: true, defect: { id: body.id, key: 'SKR-D9', state: 'new' } };
      default:
        return undefined;
    }
  }

  private ofAttempt(of: Api['AttemptDetail'], what: string, body: Body): unknown {
    const round = of.rounds.find((r) => r.position === body.round);
    const step = round?.steps.find((s) => s.position === body.step);
    switch (what) {
      case 'verdicts':
        if (!step) return undefined;
        Object.assign(step, {
          verdict: body.verdict,
          happened: body.happened ?? '',
          reason: body.reason ?? '',
          waits_on: body.waits_on ?? '',
        });
        step.active_ms += Number(body.active_ms ?? 0);
        of.attempt.active_ms += Number(body.active_ms ?? 0);
        this.roll(of);
        break;
      case 'notes':
        if (step) step.note = String(body.note);
        else of.attempt.remark = String(body.note);
        break;
      case 'tries':
        if (!step) return undefined;
        step.tries += 1;
        step.tries_failed += body.failed === true ? 1 : 0;
        break;
      case 'rounds':
        if (!round) return undefined;
        if (body.act === 'repeat')
          of.rounds.push({
            ...structuredClone(round),
            position: of.rounds.length + 1,
            repeats: round.position,
            steps: round.steps.map((s) => ({ ...blank(s.position) })),
          });
        else round.skipped = body.act === 'skip' ? String(body.reason) : null;
        this.roll(of);
        break;
      case 'finish':
        of.attempt.state = 'finished';
        of.attempt.verdict = String(body.verdict ?? of.attempt.roll_up);
        of.attempt.note = String(body.note ?? '');
        break;
      case 'take-over':
        of.attempt.tester = ME;
        return structuredClone(of);
      case 'evidence':
        of.evidence.push({
          ...body,
          round: Number(body.round),
          step: Number(body.step),
          url: `/api/v1/evidence/${String(body.id)}/file`,
        } as unknown as Api['EvidenceItem']);
        return { applied: true, evidence: of.evidence.at(-1) };
    }
    return { applied: true };
  }

  /** As the rules say: fail, blocked, not run, in progress, not applicable, pass. */
  private roll(of: Api['AttemptDetail']): void {
    const up = (list: string[]): string => {
      const has = (v: string): boolean => list.includes(v);
      const all = (v: string): boolean => list.every((x) => x === v);
      if (has('fail')) return 'fail';
      if (has('blocked')) return 'blocked';
      if (all('not_run')) return 'not_run';
      if (has('not_run') || has('in_progress')) return 'in_progress';
      return all('not_applicable') ? 'not_applicable' : 'pass';
    };
    for (const r of of.rounds)
      r.roll_up = (
        r.skipped === null ? up(r.steps.map((s) => s.verdict)) : 'not_applicable'
      ) as typeof r.roll_up;
    const repeated = of.rounds.map((r) => r.repeats);
    of.attempt.roll_up = up(of.rounds.filter((r) => !repeated.includes(r.position)).map((r) => r.roll_up));
  }

  private trail(): unknown {
    return [...this.attempts.values()].map((a, i) => ({
      id: a.entry_id,
      case_key: a.case_key,
      title: a.title,
      display_state: a.attempt.state === 'finished' ? a.attempt.verdict : 'not_run',
      previous_verdict: null,
      readiness: a.attempt.state === 'finished' ? 'done' : 'ready',
      reasons: [],
      needs: [],
      assignee: ME,
      walking: null,
      configuration: { id: 'c1', name: i < 2 ? 'Quay tablet, upright' : 'Phone' },
      estimate_seconds: 300,
      open_attempt_id: null,
    }));
  }

  private detail(n: number, steps: number, rows: Record<string, string>[]): Api['AttemptDetail'] {
    const rounds = rows.length > 0 ? rows : [{}];
    return {
      attempt: {
        id: `a${n}`,
        number: 1,
        tester: ME,
        build: { id: 'b1', name: '4.2.0-7' },
        configuration: { id: 'c1', name: 'Quay tablet, upright' },
        state: 'open',
        roll_up: 'not_run',
        verdict: null,
        overruled: false,
        note: '',
        active_ms: 0,
        corrected_ms: null,
        started_at: '2026-11-24T10:00:00Z',
        finished_at: null,
        named_environment: null,
        environment: '',
        remark: '',
        from_list: false,
        parallel_reason: null,
        takeover_word: '',
      },
      project_code: 'SKR',
      entry_id: `e${n}`,
      cycle_id: 'y',
      cycle_key: 'SKR-R2',
      cycle_name: 'Release 4.2',
      case_key: `SKR-C${n}`,
      case_version: 1,
      title: `Case ${n}`,
      objective: '',
      preconditions: '',
      postconditions: '',
      estimate_seconds: 300,
      steps: Array.from({ length: steps }, (_, i) => ({
        position: i + 1,
        action: `Do ${i + 1} with \`HL-22${i}\``,
        data: i === 0 ? 'data one\ndata two' : '',
        expected: `See ${i + 1}.`,
        files: [],
        routines: [],
        uses: i === 0 ? Object.keys(rows[0] ?? {}) : [],
      })),
      rounds: rounds.map((row, r) => ({
        position: r + 1,
        roll_up: 'not_run',
        skipped: null,
        repeats: null,
        values: Object.entries(row).map(([name, value]) => ({ name, value, secret: false, hidden: false })),
        texts: [],
        steps: Array.from({ length: steps }, (_, s) => blank(s + 1)),
      })),
      evidence: [],
      defects: [],
      earlier: [],
      late: [],
      retest_reason: null,
      policies: this.policies,
      removals: [],
      secret: false,
    } as unknown as Api['AttemptDetail'];
  }
}

function blank(position: number): Api['StepRecord'] {
  return {
    position,
    verdict: 'not_run',
    note: '',
    happened: '',
    reason: '',
    waits_on: '',
    active_ms: 0,
    tries: 0,
    tries_failed: 0,
    judged_at: null,
  };
}

function problem(status: number, detail: string, errors: Record<string, string[]> = {}): Response {
  return Response.json({ type: 'urn:lucid-step:problem:refused', detail, errors }, { status });
}
