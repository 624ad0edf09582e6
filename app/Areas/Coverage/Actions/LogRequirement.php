<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;

/**
 * Writes down what became of a requirement, and tells the screens that show it.
 */
final readonly class LogRequirement
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  'made'|'changed'|'moved'|'dropped'|'restored'|'confirmed'  $kind
     * @param  array<string, array{mixed, mixed}>  $changes each field with what it was and what it is
     * @param  ?string  $import the import that did it
     */
    public function __invoke(Requirement $requirement, User $by, string $kind, array $changes, ?string $import = null): void
    {
        DB::table('requirement_log')->insert([
            'id' => (string) Str::uuid7(),
            'project_id' => $requirement->project_id,
            'requirement_id' => $requirement->id,
            'actor_id' => $by->id,
            'kind' => $kind,
            'changes' => json_encode((object) $changes, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
            'import_id' => $import,
            'at' => Carbon::now()->format('Y-m-d H:i:s.uP'),
        ]);
        ($this->announce)($requirement->project_id, 'requirement', $requirement->id);
    }
}
