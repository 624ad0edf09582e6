<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Casebook\Exchange\ImportCases;
use LucidStep\App\Areas\Casebook\Exchange\ManageImport;
use LucidStep\App\Areas\People\Queries\DemoPeople;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\EntryCondition;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Database\DatabaseClock;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\Core\Access\Role;

/**
 * Loads the demo from its open files, through the same actions that people use, with times relative to today.
 */
final class LoadDemo
{
    /** Numbers of the defects that were filed before the walks of the last days, in which one was found, and after them. */
    private const BEFORE_THE_WALKS = [1, 34];

    private const AFTER_THEM = [36, 40];

    /** @var array<string, User> */
    private array $people = [];

    /** @var array<string, Build> */
    private array $builds = [];

    /** @var array<string, Configuration> */
    private array $configurations = [];

    private Project $project;

    public function __construct(
        private readonly ManageImport $imports,
        private readonly ImportCases $import,
        private readonly NextKey $nextKey,
        private readonly DefectStory $defects,
        private readonly SessionStory $sessions,
        private readonly CoverageStory $coverage,
        private readonly WalkStory $walk,
        private readonly AuthorStory $authors,
        private readonly PlanStory $plan,
        private readonly DemoPeople $demoPeople,
    ) {}

    /**
     * @param  ?User  $for who looks at it in an installation of their own: then it is one project of which they are an admin, and
     *                     nobody signs in as its people; null: the whole of a demo
     */
    public function __invoke(?User $for = null): void
    {
        $today = Carbon::now()->startOfDay();
        DatabaseClock::follow();
        try {
            DB::transaction(function () use ($today, $for): void {
                Carbon::setTestNow($today->copy()->subDays(30)->setTime(9, 0));
                $this->project($for);
                $this->casebook();
                $this->plan->setUp($this->project, $this->people, $today);
                $this->defects->begin($this->project, $this->people, $today);
                $this->defects->file(self::BEFORE_THE_WALKS);
                Carbon::setTestNow($today->copy()->subDays(18)->setTime(11, 0));
                $this->authors->begin($this->project, $this->people);
                $this->cycles($today);
                Carbon::setTestNow($today->copy()->subDay()->setTime(15, 0));
                $this->authors->goOn($this->project, $this->people);
                $this->plan->goOn($this->project, $this->people, $today);
                $this->defects->file(self::AFTER_THEM);
                $this->defects->act();
                ($this->sessions)($this->project, $this->people, $today);
                ($this->coverage)($this->project, $this->people, $today);
                // What is older than yesterday was read.
                DB::table('notices')
                    ->where('created_at', '<', $today->copy()->subDay())
                    ->update(['read_at' => DB::raw('created_at')]);
            });
        } finally {
            Carbon::setTestNow();
        }
    }

    private function project(?User $for): void
    {
        $made = ['time_zone' => 'Europe/Dublin', 'policies' => [], 'is_demo' => true];
        $this->project = Project::query()
            ->create(['code' => 'SKR', 'name' => 'Skerrywick Ferries', ...$made])
            ->refresh();
        foreach ($this->demoPeople->all() as $person) {
            $user = User::query()->create([
                'name' => $person['name'],
                'email' => $person['email'],
                'password' => null === $for ? DemoPeople::password() : Str::random(60),
                'is_owner' => null === $for && 'admin' === $person['role'],
            ]);
            $this->people[strtok($person['email'], '@') ?: ''] = $user;
            Membership::query()->create([
                'project_id' => $this->project->id,
                'user_id' => $user->id,
                'role' => Role::from($person['role']),
            ]);
        }
        if (null === $for) {
            $other = Project::query()->create(['code' => 'HBR', 'name' => 'Harbour office', ...$made]);
            Membership::query()->create(['project_id' => $other->id, 'user_id' => $this->people['corin']->id, 'role' => Role::Admin]);
        } else {
            Membership::query()->create(['project_id' => $this->project->id, 'user_id' => $for->id, 'role' => Role::Admin]);
        }
        foreach (['4.1.0-3', '4.2.0-5', '4.2.0-7'] as $i => $name) {
            $this->builds[$name] = Build::query()->create(['project_id' => $this->project->id, 'name' => $name, 'position' => $i + 1]);
        }
        foreach (['Desktop, wide', 'Quay tablet, upright', 'Phone, small'] as $i => $name) {
            $this->configurations[$name] = Configuration::query()->create([
                'project_id' => $this->project->id,
                'name' => $name,
                'position' => $i + 1,
            ]);
        }
    }

    /**
     * The casebook comes in by the importer that people use: one file, with the pictures beside it put in.
     */
    private function casebook(): void
    {
        $book = json_decode((string) file_get_contents(base_path('demo/casebook.json')), true, 64, \JSON_THROW_ON_ERROR);
        foreach (glob(base_path('demo/reference/*.png')) ?: [] as $picture) {
            $book['files'][(string) hash_file('sha256', $picture)] = base64_encode((string) file_get_contents($picture));
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'book');
        file_put_contents($path, json_encode($book, \JSON_THROW_ON_ERROR));
        $import = $this->imports->upload(
            $this->project,
            $this->people['maren'],
            new UploadedFile($path, 'casebook.json', null, null, true),
        );
        $import->update(['state' => 'running']);
        $this->import->run($import);
        unlink($path);
        if (JobState::Done !== $import->state || 0 !== ($import->facts['refuses'] ?? 0)) {
            throw new \RuntimeException(
                "The demo's cases did not come in: {$import->problem} " .
                    json_encode(array_filter($import->report, static fn(array $r): bool => 'refuse' === $r['is'])),
            );
        }
    }

    private function cycles(Carbon $today): void
    {
        $entries = collect(CsvFile::rows(base_path('demo/entries.csv')))->groupBy('cycle');
        foreach (CsvFile::rows(base_path('demo/cycles.csv')) as $row) {
            $number = $this->nextKey->reserve($this->project, 'cycle');
            $cycle = Cycle::query()->create([
                'project_id' => $this->project->id,
                'number' => $number,
                'key' => "SKR-R{$number}",
                'name' => $row['name'],
                'description' => $row['description'],
                'build_id' => $this->builds[$row['build']]->id,
                'environment_id' => Environment::query()
                    ->where('project_id', $this->project->id)
                    ->where('name', $row['environment'])
                    ->value('id'),
                'starts_on' => $today->copy()->addDays((int) $row['starts_days']),
                'ends_on' => $today->copy()->addDays((int) $row['ends_days']),
                'state' => 'released',
                'conditions_hold' => true,
            ]);
            $rows = array_values(($entries[$row['slug']] ?? collect())->all());
            $made = $this->entries($cycle, $rows, $today);
            // The database says when somebody was assigned; here that was when the cycle began.
            Entry::query()
                ->where('cycle_id', $cycle->id)
                ->whereNotNull('assignee_id')
                ->update([
                    'assigned_at' => $today
                        ->copy()
                        ->addDays(min(-2, (int) $row['starts_days']))
                        ->setTime(9, 0),
                ]);
            $this->walk->begin($this->project, $this->people, $today->copy()->addDays((int) $row['starts_days'])->setTime(9, 0));
            foreach ($rows as $i => $line) {
                if ('' !== $line['story']) {
                    ($this->walk)($made[$i], $line['story']);
                }
            }
            if ('closed' === $row['state']) {
                $cycle->update(['state' => 'closed', 'closed_at' => $today->copy()->addDays((int) $row['ends_days'])->setTime(17, 0)]);
            }
        }
    }

    /**
     * @param  list<array<string, string>>  $rows
     *
     * @return list<Entry>
     */
    private function entries(Cycle $cycle, array $rows, Carbon $today): array
    {
        $cases = TestCase::query()->where('project_id', $this->project->id)->get()->keyBy('key');
        $made = [];
        $byCase = [];
        foreach ($rows as $i => $row) {
            $case = $cases[$row['case']];
            $made[] = $byCase[$row['case']] = Entry::query()->create([
                'project_id' => $this->project->id,
                'cycle_id' => $cycle->id,
                'case_id' => $case->id,
                'case_version_id' => $case->version_id,
                'configuration_id' => $this->configurations[$row['configuration']]->id,
                'position' => $i + 1,
                'row_ids' => $this->rows($case, $row['rows'] ?? ''),
                'rounds' => max(1, \count($this->rows($case, $row['rows'] ?? '') ?? [])),
                'assignee_id' => '' === $row['assignee'] ? null : $this->people[$row['assignee']]->id,
                'not_before' =>
                    '' === $row['not_before_days'] ? null : $today->copy()->addDays((int) $row['not_before_days'])->setTime(9, 0),
                'not_after' => '' === $row['not_after_days'] ? null : $today->copy()->addDays((int) $row['not_after_days'])->setTime(17, 0),
            ]);
        }
        foreach ($rows as $i => $row) {
            foreach (['after' => $row['after'], 'only_if_passed' => $row['only_if_passed']] as $kind => $needs) {
                if ('' !== $needs) {
                    EntryCondition::query()->insert([
                        'entry_id' => $made[$i]->id,
                        'needs_id' => $this->key($byCase["SKR-C{$needs}"]),
                        'kind' => $kind,
                    ]);
                }
            }
        }

        return array_map(static fn(Entry $e): Entry => $e->refresh(), $made);
    }

    /**
     * @param  string  $numbers of rows of the case's data table, from 1
     *
     * @return ?list<string>
     */
    private function rows(TestCase $case, string $numbers): ?array
    {
        if ('' === $numbers) {
            return null;
        }
        $all = DataRow::query()->where('table_id', $case->table_id)->orderBy('position')->pluck('id')->all();

        return array_map(static fn(string $n): string => (string) $all[(int) $n - 1], explode(' ', $numbers));
    }

    private function key(Model $model): string
    {
        $key = $model->getKey();

        return \is_string($key) ? $key : throw new \LogicException('A row without a key.');
    }
}
