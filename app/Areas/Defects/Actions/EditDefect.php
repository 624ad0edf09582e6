<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
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
     * @param  array<string, ?string>  $is  what it is to be, the same fields
     * @param  bool  $mayFile whether they may file defects
     *
     * @throws AuthorizationException when a developer would change what somebody else worded
     * @throws DefectConflict         when another changed the same field meanwhile
     * @throws ValidationException    by field
     */
    public function __invoke(Defect $defect, User $user, array $was, array $is, bool $mayFile): Defect
    {
        foreach (array_keys($is) as $field) {
            if (!$mayFile && Permission::FileDefects === DefectField::needs($field)) {
                throw new AuthorizationException();
            }
        }
        $fields = new DefectFields(Project::query()->findOrFail($defect->project_id));
        $is = $fields->take($is);
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        $now = $fields->of($defect);
        $edit = new FieldEdit($was, $is);
        $collisions = $edit->collisions($now);
        if ([] !== $collisions) {
            throw DefectConflict::editedMeanwhile($collisions);
        }
        $this->apply($fields, $defect, $user, $edit->changes($now));

        return $defect;
    }

    /**
     * @param  array<string, array{?string, ?string}>  $changes before and after, by field
     */
    public function apply(DefectFields $fields, Defect $defect, User $user, array $changes): void
    {
        if ([] === $changes) {
            return;
        }
        $fields->write($defect, array_map(static fn(array $c): ?string => $c[1], $changes));
        ++$defect->version;
        $defect->save();
        $told = [];
        foreach ($changes as $field => $change) {
            $told[$field] = DefectField::tryFrom($field)?->isWords() ?? false ? [null, null] : $change;
        }
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $defect->state,
            'to_state' => $defect->state,
            'fields' => $told,
            'created_at' => Carbon::now(),
        ]);
        $to = $changes['assignee_id'][1] ?? null;
        if (null !== $to) {
            $this->tell->given($defect, $user, $to);
        }
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }
}
