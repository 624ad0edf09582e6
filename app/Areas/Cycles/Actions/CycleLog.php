<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * Writes down what was done to a cycle, and that it is another one now.
 */
final readonly class CycleLog
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  ?User  $actor null: the application itself
     * @param  ?string  $act   the act it can be undone by
     * @param  array<string, string>  $before as {@see facts()} told it: what is another now is kept beside the text
     */
    public function __invoke(
        Cycle $cycle,
        ?User $actor,
        CycleLogKind $kind,
        string $text,
        string $reason = '',
        ?string $act = null,
        array $before = [],
    ): void {
        $changes = [];
        foreach ([] === $before ? [] : self::facts($cycle) as $field => $now) {
            if ($now !== $before[$field]) {
                $changes[] = ['field' => $field, 'from' => $before[$field], 'to' => $now];
            }
        }
        DB::table('cycle_log')->insert([
            'cycle_id' => $cycle->id,
            'actor_id' => $actor?->id,
            'at' => Carbon::now(),
            'kind' => $kind->value,
            'text' => $text,
            'reason' => $reason,
            'act_id' => $act,
            'changes' => [] === $changes ? null : json_encode($changes, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
        ]);
        DB::table('cycles')->where('id', $cycle->id)->increment('revision');
        ($this->announce)($cycle->project_id, 'cycle', $cycle->id, $cycle->id);
        ($this->announce)($cycle->project_id, 'entry', $cycle->id, $cycle->id);
    }

    /**
     * What its testers have to know of a cycle when it is changed.
     *
     * @return array{build: string, starts_on: string, ends_on: string} the build by name, days as YYYY-MM-DD
     */
    public static function facts(Cycle $cycle): array
    {
        return [
            'build' => null === $cycle->build_id ? '' : (string) Build::query()->whereKey($cycle->build_id)->value('name'),
            'starts_on' => Carbon::parse($cycle->starts_on)->toDateString(),
            'ends_on' => Carbon::parse($cycle->ends_on)->toDateString(),
        ];
    }
}
