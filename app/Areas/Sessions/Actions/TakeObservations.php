<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\ObservedAct;
use LucidStep\Core\Sessions\ObserverBounds;
use LucidStep\Core\Sessions\SessionState;
use Ramsey\Uuid\Uuid;

/**
 * Takes what a page reports into the timeline of its session: each act once, in its place in time, while the session ran, and no more than
 * somebody can do.
 */
final readonly class TakeObservations
{
    public function __construct(private SessionJournal $journal, private PublishChange $announce) {}

    /**
     * @param  string  $origin from where they come, which the project lists
     * @param  list<ObservedAct>  $acts
     * @param  int  $lost acts that the page itself could not keep
     *
     *
     * @throws SessionConflict once it is signed off
     * @return array{TestSession, int} with how many were new
     */
    public function __invoke(TestSession $session, string $origin, array $acts, int $lost = 0): array
    {
        return Transactions::run(function () use ($session, $origin, $acts, $lost): array {
            $session = TestSession::query()->lockForUpdate()->findOrFail($session->id)->setRelation('tester', $session->tester);
            if (SessionState::Debriefed === $session->state) {
                throw SessionConflict::signedOff();
            }
            $now = Carbon::now();
            $first = $session->observer['origin'] ?? $origin;
            $new = $this->fresh($session, $acts, $now->getTimestampMs());
            $before = self::boundsOf($session);
            [$taken, $bounds] = $before->take(\count($new) + $lost, $now->getTimestampMs());
            $kept = \array_slice($new, 0, $taken);
            $tooMany = $bounds->leftOut > $before->leftOut;
            if ([] !== $kept || $tooMany) {
                $this->write($session, $kept, $origin === $first ? '' : $origin, $tooMany ? $this->tooMany($session, $now) : null, $now);
            }
            $last = $acts[\count($acts) - 1] ?? null;
            $page = null === $last ? $session->observer['page'] ?? '' : ($origin === $first ? '' : $origin) . $last->page;
            // Whoever was refused before is forgotten.
            $session->observer = [
                'origin' => $first,
                'page' => $page,
                'at' => $now->getTimestampMs(),
                'bounds' => [$bounds->minute, $bounds->inMinute, $bounds->inAll, $bounds->leftOut],
            ];
            $session->save();
            ($this->announce)($session->project_id, 'observed', $session->id);

            return [$session, \count($kept)];
        });
    }

    public static function boundsOf(TestSession $session): ObserverBounds
    {
        return new ObserverBounds(...$session->observer['bounds'] ?? []);
    }

    /**
     * Those that are not there yet, and were done while it ran.
     *
     * @param  list<ObservedAct>  $acts
     * @param  int  $now ms since 1970
     *
     * @return list<ObservedAct>
     */
    private function fresh(TestSession $session, array $acts, int $now): array
    {
        $there = array_flip(
            SessionLine::query()
                ->whereKey(array_map(static fn(ObservedAct $a): string => $a->id, $acts))
                ->pluck('id')
                ->all(),
        );
        $clock = $session->clock();
        $fresh = [];
        foreach ($acts as $act) {
            if (!isset($there[$act->id]) && !isset($fresh[$act->id]) && $clock->ranAt(min($act->at, $now))) {
                $fresh[$act->id] = $act;
            }
        }

        return array_values($fresh);
    }

    /**
     * What is said where more came than is kept, once a minute.
     */
    private function tooMany(TestSession $session, Carbon $now): ?string
    {
        $minute = intdiv($now->getTimestampMs(), 60_000);
        $id = Uuid::uuid5($session->id, "too-many-{$minute}")->toString();

        return SessionLine::query()->whereKey($id)->exists() ? null : $id;
    }

    /**
     * @param  list<ObservedAct>  $acts
     * @param  string  $elsewhere their origin, where it is not the first of the session
     * @param  ?string  $tooMany the line that says that more came than is kept, by id; null: none is to be written
     */
    private function write(TestSession $session, array $acts, string $elsewhere, ?string $tooMany, Carbon $now): void
    {
        $clock = $session->clock();
        $number = (int) SessionLine::query()->where('session_id', $session->id)->max('number');
        $rows = $said = [];
        foreach ($acts as $act) {
            $at = min($act->at, $now->getTimestampMs());
            $what = [
                'kind' => $act->kind->value,
                'at_ms' => $clock->at($at),
                'words' => $act->words,
                'page' => $elsewhere . $act->page,
                'tab' => $act->tab,
                'reached' => $act->reached?->value,
                'opener' => $act->opener,
                'control' => $act->control,
                'value' => $act->value,
            ];
            $rows[] = ['id' => $act->id, 'done_at' => Carbon::createFromTimestampMsUTC($at), 'counter' => $act->counter, ...$what];
            $said[] = ['line' => $act->id, ...array_filter($what, static fn(mixed $v): bool => null !== $v && '' !== $v)];
        }
        if (null !== $tooMany) {
            $words = 'More is reported than somebody can do: what is above ' . ObserverBounds::A_MINUTE . ' acts a minute is left out.';
            $what = ['kind' => LineKind::Trouble->value, 'at_ms' => $clock->at($now->getTimestampMs()), 'words' => $words];
            $none = ['page' => null, 'tab' => null, 'reached' => null, 'opener' => null, 'control' => '', 'value' => null];
            $rows[] = ['id' => $tooMany, 'done_at' => $now, 'counter' => null, ...$what, ...$none];
            $said[] = ['line' => $tooMany, ...$what];
        }
        if ([] === $rows) {
            return;
        }
        DB::table('session_lines')->insert(
            array_map(
                static fn(array $row, int $i): array => [
                    ...$row,
                    'project_id' => $session->project_id,
                    'session_id' => $session->id,
                    'number' => $number + $i + 1,
                    'created_at' => $now,
                ],
                $rows,
                array_keys($rows),
            ),
        );
        $this->journal->append($session, $session->tester, 'observed', ['acts' => $said], new DeviceStamp());
    }
}
