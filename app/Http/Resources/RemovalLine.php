<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use Illuminate\Support\Facades\DB;
use OpenApi\Attributes as OA;

/**
 * Something that was taken out: its trace.
 */
#[OA\Schema(description: 'Something that was taken out: its trace.')]
final readonly class RemovalLine
{
    public function __construct(
        #[OA\Property(enum: ['file', 'text'])]
        public string $kind,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $reason,
        #[OA\Property]
        public ?Person $by,
        #[OA\Property]
        public string $at,
    ) {
    }

    /**
     * @return list<self> all that was taken out of an attempt, the first first
     */
    public static function of(string $attempt): array
    {
        return array_values(DB::table('removals')->leftJoin('users', 'users.id', '=', 'actor_id')->where('attempt_id', $attempt)->orderBy('at')->get(['kind', 'subject', 'reason', 'at', 'users.id', 'users.name'])
            ->map(static fn (object $r): self => new self($r->kind, $r->subject, $r->reason, null === $r->id ? null : new Person($r->id, $r->name), (string) Zulu::time($r->at)))->all());
    }
}
