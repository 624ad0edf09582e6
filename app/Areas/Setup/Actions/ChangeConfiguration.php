<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;

/**
 * Gives a configuration a name of its own, or takes it out.
 */
final readonly class ChangeConfiguration
{
    public function __construct(private PublishChange $announce) {}

    public function rename(Configuration $configuration, string $name): void
    {
        $name = trim($name);
        if (
            '' === $name ||
            Configuration::query()
                ->where('project_id', $configuration->project_id)
                ->where('name', $name)
                ->whereKeyNot($configuration->id)
                ->exists()
        ) {
            throw ValidationException::withMessages([
                'name' => '' === $name ? 'A name is needed.' : "There is a configuration called “{$name}”.",
            ]);
        }
        $configuration->update(['name' => $name, 'named_by_values' => false]);
        ($this->announce)($configuration->project_id, 'setup', $configuration->id);
    }

    /**
     * @throws Conflict when entries use it: they are named by cycle
     */
    public function remove(Configuration $configuration): void
    {
        $cycles = DB::table('entries')
            ->join('cycles', 'cycles.id', '=', 'entries.cycle_id')
            ->where('configuration_id', $configuration->id)
            ->groupBy('cycles.name')
            ->get(['cycles.name', DB::raw('count(*) as n')]);
        if ($cycles->isNotEmpty() || DB::table('attempts')->where('configuration_id', $configuration->id)->exists()) {
            throw InUse::stays(
                $configuration->name,
                'it is used by ' .
                    $cycles
                        ->map(static fn(object $c): string => \sprintf('%d %s in %s', $c->n, Str::plural('entry', (int) $c->n), $c->name))
                        ->implode(', '),
            );
        }
        $configuration->delete();
        ($this->announce)($configuration->project_id, 'setup', $configuration->id);
    }
}
