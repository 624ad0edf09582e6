<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\FieldEdit;

/**
 * Changes what a defect says, field by field: edits of two people to two fields both count.
 */
final readonly class EditDefect
{
    /** What whoever may file defects words; the rest a developer changes as well. */
    public const WORDS = ['title', 'body', 'expected', 'actual'];

    public const FIELDS = [...self::WORDS, 'severity', 'priority', 'assignee_id'];

    public function __construct(private PublishChange $announce, private TellOfDefect $tell) {}

    /**
     * @param  array<string, ?string>  $was what each field was when they began
     * @param  array<string, ?string>  $is  what it is to be, the same fields of {@see FIELDS}
     * @param  bool  $mayFile whether they may file defects
     *
     * @throws AuthorizationException when a developer would change what somebody else worded
     * @throws DefectConflict         when another changed the same field meanwhile
     * @throws ValidationException    when it would go to somebody who has no part in the project
     */
    public function __invoke(Defect $defect, User $user, array $was, array $is, bool $mayFile): Defect
    {
        if (!$mayFile && [] !== array_intersect(array_keys($is), self::WORDS)) {
            throw new AuthorizationException();
        }
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        $now = [];
        foreach (self::FIELDS as $field) {
            $value = $defect->getAttribute($field);
            $now[$field] = \is_string($value) ? $value : null;
        }
        $edit = new FieldEdit($was, $is);
        $collisions = $edit->collisions($now);
        if ([] !== $collisions) {
            throw DefectConflict::editedMeanwhile($collisions);
        }
        $changes = $edit->changes($now);
        if ([] === $changes) {
            return $defect;
        }
        $to = $changes['assignee_id'][1] ?? null;
        if (null !== $to && !Membership::query()->where('project_id', $defect->project_id)->where('user_id', $to)->exists()) {
            throw ValidationException::withMessages(['assignee_id' => 'Nobody like this has a part in the project.']);
        }
        $defect->fill(array_map(static fn(array $c): ?string => $c[1], $changes));
        ++$defect->version;
        $defect->save();
        // Words may be taken out later: the history says that they changed, and keeps none of them.
        $told = array_map(
            static fn(string $field, array $change): array => \in_array($field, self::WORDS, true) ? [null, null] : $change,
            array_keys($changes),
            $changes,
        );
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $defect->state,
            'to_state' => $defect->state,
            'fields' => array_combine(array_keys($changes), $told),
            'created_at' => Carbon::now(),
        ]);
        if (null !== $to) {
            $this->tell->given($defect, $user, $to);
        }
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }
}
