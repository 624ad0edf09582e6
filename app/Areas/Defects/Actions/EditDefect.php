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
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\FieldEdit;

/**
 * Changes what a defect says, field by field: edits of two people to two fields both count.
 */
final readonly class EditDefect
{
    public function __construct(private PublishChange $announce, private TellOfDefect $tell) {}

    /**
     * @param  array<string, ?string>  $was what each field was when they began
     * @param  array<value-of<DefectField>, ?string>  $is  what it is to be, the same fields
     * @param  bool  $mayFile whether they may file defects
     *
     * @throws AuthorizationException when a developer would change what somebody else worded
     * @throws DefectConflict         when another changed the same field meanwhile
     * @throws ValidationException    when it would go to somebody who has no part in the project
     */
    public function __invoke(Defect $defect, User $user, array $was, array $is, bool $mayFile): Defect
    {
        foreach (array_keys($is) as $field) {
            if (!$mayFile && Permission::FileDefects === DefectField::from($field)->needs()) {
                throw new AuthorizationException();
            }
        }
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        $now = [];
        foreach (DefectField::cases() as $field) {
            $value = $defect->getAttribute($field->value);
            $now[$field->value] = \is_string($value) ? $value : null;
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
        $told = [];
        foreach ($changes as $field => $change) {
            $told[$field] = DefectField::from($field)->isWords() ? [null, null] : $change;
        }
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $defect->state,
            'to_state' => $defect->state,
            'fields' => $told,
            'created_at' => Carbon::now(),
        ]);
        if (null !== $to) {
            $this->tell->given($defect, $user, $to);
        }
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }
}
