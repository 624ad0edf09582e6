<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use Illuminate\Support\Carbon;
use Illuminate\Validation\Rule;
use LucidStep\App\Areas\Cycles\EntryChanges\AddCondition;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignEntriesTo;
use LucidStep\App\Areas\Cycles\EntryChanges\DropConditions;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryChange;
use LucidStep\App\Areas\Cycles\EntryChanges\MoveBefore;
use LucidStep\App\Areas\Cycles\EntryChanges\RemoveEntries;
use LucidStep\App\Areas\Cycles\EntryChanges\SetWindow;
use LucidStep\App\Areas\Cycles\EntryChanges\SortByDependencies;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use LucidStep\Core\Planning\ConditionKind;
use OpenApi\Attributes as OA;

/**
 * One change of entries of a cycle. Which of `changes` count depends on `act`.
 */
#[
    OA\Schema(
        required: ['act'],
        properties: [
            new OA\Property(property: 'act', type: 'string', enum: BulkEditEntriesRequest::ACTS),
            new OA\Property(property: 'ids', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(
                property: 'changes',
                properties: [
                    new OA\Property(
                        property: 'assignee_id',
                        type: 'string',
                        format: 'uuid',
                        nullable: true,
                        description: 'assign: to whom',
                    ),
                    new OA\Property(
                        property: 'note',
                        type: 'string',
                        nullable: true,
                        description: 'A word of why, or for whoever gets them',
                    ),
                    new OA\Property(property: 'not_before', type: 'string', nullable: true, description: 'window: inclusive'),
                    new OA\Property(property: 'not_after', type: 'string', nullable: true, description: 'window: exclusive'),
                    new OA\Property(property: 'needs_id', type: 'string', nullable: true, description: 'condition, no_condition: on what'),
                    new OA\Property(property: 'kind', type: 'string', enum: ['after', 'only_if_passed'], nullable: true),
                    new OA\Property(property: 'before_id', type: 'string', nullable: true, description: 'move: in front of which'),
                ],
                type: 'object',
            ),
        ],
    ),
]
final class BulkEditEntriesRequest extends ApiRequest
{
    public const ACTS = ['assign', 'window', 'condition', 'no_condition', 'move', 'sort_by_dependencies', 'remove'];

    public function rules(): array
    {
        return [
            'act' => ['required', Rule::in(self::ACTS)],
            'ids' => ['required_unless:act,sort_by_dependencies', 'array', 'max:50000', new UuidList()],
            'changes' => ['nullable', 'array'],
            'changes.assignee_id' => ['nullable', 'uuid'],
            'changes.note' => ['nullable', 'string', 'max:2000'],
            'changes.not_before' => ['nullable', 'date'],
            'changes.not_after' => ['nullable', 'date'],
            'changes.needs_id' => ['nullable', 'uuid'],
            'changes.kind' => ['nullable', 'in:after,only_if_passed'],
            'changes.before_id' => ['nullable', 'uuid'],
        ];
    }

    public function change(): EntryChange
    {
        $text = fn(string $name): ?string => $this->filled("changes.{$name}") ? $this->string("changes.{$name}")->toString() : null;
        $time = static fn(?string $text): ?Carbon => null === $text ? null : Carbon::parse($text)->utc();

        return match ($this->string('act')->toString()) {
            'assign' => new AssignEntriesTo($text('assignee_id'), $this->note()),
            'window' => new SetWindow($time($text('not_before')), $time($text('not_after'))),
            'condition' => new AddCondition((string) $text('needs_id'), ConditionKind::tryFrom((string) $text('kind'))),
            'no_condition' => new DropConditions($text('needs_id')),
            'move' => new MoveBefore($text('before_id')),
            'remove' => new RemoveEntries(),
            default => new SortByDependencies(),
        };
    }

    public function note(): string
    {
        return $this->string('changes.note')->toString();
    }

    /**
     * @return list<string>
     */
    public function ids(): array
    {
        return array_values(array_map(strval(...), (array) $this->validated('ids')));
    }
}
