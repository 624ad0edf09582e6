<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Membership;

/**
 * Looks people up who are to have part in a cycle: whoever walks must be one who records.
 */
final class TesterLookup
{
    /**
     * @param  list<string>  $ids
     * @param  \Closure(int): string  $field the field of each, by its place
     *
     *
     * @throws ValidationException naming each who left the project or only reads
     * @return array<string, Membership> by person, in the order given
     */
    public static function of(string $project, array $ids, \Closure $field): array
    {
        [$members, $errors] = self::look($project, $ids, $field);

        return [] === $errors ? $members : throw ValidationException::withMessages($errors);
    }

    /**
     * @param  list<string>  $ids
     * @param  \Closure(int): string  $field
     * @param  bool  $walks false: readers may be among them
     *
     * @return array{array<string, Membership>, array<string, string>} those who can, and why others cannot by field
     */
    public static function look(string $project, array $ids, \Closure $field, bool $walks = true): array
    {
        $known = Membership::query()->where('project_id', $project)->whereIn('user_id', $ids)->with('user')->get()->keyBy('user_id');
        $members = $errors = [];
        foreach ($ids as $i => $id) {
            $member = $known[$id] ?? null;
            if (null === $member || ($walks && !$member->role->records())) {
                $errors[$field($i)] =
                    null === $member
                        ? 'This person has left the project.'
                        : "{$member->user->name} only reads here; choose somebody who records.";
            } else {
                $members[$id] = $member;
            }
        }

        return [$members, $errors];
    }
}
