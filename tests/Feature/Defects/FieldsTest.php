<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Str;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * What a defect says, field by field, and how it stands to others.
 */
final class FieldsTest extends FeatureTestCase
{
    use Walks;

    private User $me;

    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        [$this->me, $this->lead] = [$this->world->person('tess'), $this->world->lead()];
    }

    public function test_one_is_filed_without_a_walk_with_every_field_there_is(): void
    {
        $field = $this->setUpLists();
        $case = $this->world->entry($this->me)->case;
        $dev = $this->world->person('dev', Role::Developer);
        $filed = $this->as($this->me, 'POST', '/projects/TST/defects', [
            'title' => 'The gate stays shut',
            'preconditions' => 'A booking',
            'steps' => "1. Go\n3. Hold the code",
            'expected' => 'It opens',
            'actual' => 'It stays shut',
            'environment' => 'Quay, at night',
            'severity' => 'critical',
            'priority' => 'now',
            'assignee_id' => $dev->id,
            'build_id' => $this->world->build->id,
            'component' => 'boarding',
            'labels' => 'gate, "deck, car", GATE',
            'custom' => [$field => 'A GUEST'],
            'watchers' => [$this->lead->id],
            'case' => strtolower($case->key),
        ])->assertCreated();
        foreach (
            [
                'defect.case_key' => $case->key,
                'defect.build.name' => '1.0',
                'defect.component' => 'boarding',
                'defect.labels' => ['gate', 'deck, car'],
                'defect.custom' => [$field => 'a guest'],
                'defect.assignee.name' => $dev->name,
                'steps' => "1. Go\n3. Hold the code",
                'environment' => 'Quay, at night',
                'watchers' => [['id' => $this->lead->id, 'name' => $this->lead->name]],
                'origins' => [],
            ]
            as $path => $value
        ) {
            $filed->assertJsonPath($path, $value);
        }
        self::assertStringContainsString("## Steps\n\n1. Go\n3. Hold the code\n\n## Expected", (string) $filed->json('markdown'));
        self::assertSame(1, $this->found($dev, 'TST-D1'), 'who has it is told');
        // A label that the project spells otherwise is taken as it is spelt.
        $again = $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Another', 'labels' => 'Gate'])->assertCreated();
        $again->assertJsonPath('defect.labels', ['gate']);
        $this->as($this->lead, 'PATCH', '/projects/TST/labels', ['from' => 'gate', 'to' => 'barrier'])->assertOk();
        $this->as($this->me, 'GET', '/defects/TST-D2')->assertJsonPath('defect.labels', ['barrier']);
    }

    public function test_what_is_not_the_project_s_is_refused_by_field_and_nothing_is_filed(): void
    {
        $this->setUpLists();
        $stranger = User::query()->create(['name' => 'X', 'email' => 'x@example.test', 'password' => 'x']);
        $this->as($this->me, 'POST', '/projects/TST/defects', [
            'title' => 'T',
            'component' => 'engine',
            'assignee_id' => $stranger->id,
            'labels' => str_repeat('x', 61),
            'custom' => [$stranger->id => 'x'],
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors.component.0', 'This component is not in the list any more. Choose another.')
            ->assertJsonPath('errors.assignee_id.0', 'Nobody like this has a part in the project.')
            ->assertJsonStructure(['errors' => ['labels', "custom.{$stranger->id}"]]);
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'T', 'build_id' => $stranger->id])->assertUnprocessable();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'T', 'case' => 'TST-C99'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.case.0', 'There is no such case in this project.');
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'T', 'watchers' => [$stranger->id]])->assertUnprocessable();
        self::assertSame(0, Defect::query()->count());
    }

    public function test_fields_are_changed_each_by_itself_and_a_developer_words_nothing_anew(): void
    {
        $field = $this->setUpLists();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'T', 'steps' => '1. Go'])->assertCreated();
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($dev, 'PATCH', '/defects/TST-D1', [
            'component' => 'boarding',
            'labels' => 'quay',
            'was' => ['component' => '', 'labels' => ''],
        ])
            ->assertOk()
            ->assertJsonPath('defect.component', 'boarding')
            ->assertJsonFragment(['field' => 'component', 'was' => '', 'is' => 'boarding']);
        $edit = ['custom' => [$field => 'us'], 'was' => [], 'was_custom' => [$field => '']];
        $this->as($dev, 'PATCH', '/defects/TST-D1', $edit)
            ->assertOk()
            ->assertJsonPath('defect.custom', [$field => 'us']);
        $this->as($this->me, 'PATCH', '/defects/TST-D1', ['custom' => [$field => 'a guest'], 'was' => [], 'was_custom' => [$field => '']])
            ->assertStatus(412)
            ->assertJsonPath('now', ["custom.{$field}" => 'us']);
        $this->as($this->me, 'PATCH', '/defects/TST-D1', ['custom' => [$field => ''], 'was' => []])->assertUnprocessable();
        $this->as($dev, 'PATCH', '/defects/TST-D1', ['steps' => '1. Stay', 'was' => ['steps' => '1. Go']])->assertForbidden();
        $this->as($this->me, 'PATCH', '/defects/TST-D1', ['steps' => '1. Stay', 'was' => ['steps' => '1. Go']])
            ->assertOk()
            ->assertJsonPath('steps', '1. Stay')
            ->assertJsonPath('history.3.fields.0', ['field' => 'steps', 'was' => null, 'is' => null]);
        // What is used stays in the lists.
        $this->as($this->lead, 'PUT', '/projects/TST/lists/components', ['items' => []])->assertConflict();
        $this->as($this->lead, 'PUT', '/projects/TST/lists/defect-fields', ['fields' => []])->assertConflict();
    }

    public function test_captures_are_chosen_and_what_is_walked_fills_in_the_rest(): void
    {
        $entry = $this->world->entry($this->me);
        $attempt = $this->walked($entry, $this->me);
        $this->judge($this->me, $attempt, 1, 1, 'fail', ['happened' => 'It broke.']);
        $shots = [(string) Str::uuid7(), (string) Str::uuid7()];
        foreach ($shots as $n => $id) {
            $this->upload($this->me, $attempt, self::png(4, 3 + $n), ['id' => $id, 'round' => 1, 'step' => 1])->assertSuccessful();
        }
        $body = ['title' => 'T', 'attempt_id' => $attempt, 'round' => 1, 'step' => 1];
        $this->as($this->me, 'POST', '/projects/TST/defects', $body)
            ->assertCreated()
            ->assertJsonCount(2, 'evidence')
            ->assertJsonPath('origins.0.verdict', 'fail')
            ->assertJsonPath('origins.0.build', '1.0');
        $this->as($this->me, 'POST', '/projects/TST/defects', [...$body, 'evidence' => [$shots[1]]])
            ->assertCreated()
            ->assertJsonCount(1, 'evidence')
            ->assertJsonPath('evidence.0.id', $shots[1]);
        $this->as($this->me, 'GET', '/defects/TST-D2/reproduction')->assertOk()->assertJsonCount(1, 'reproduction.evidence');
    }

    public function test_families_and_relations_are_read_from_both_ends_and_never_bite_their_tail(): void
    {
        foreach (['One', 'Two', 'Three', 'Four'] as $title) {
            $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => $title])->assertCreated();
        }
        $relate = fn(int $n, string $relation, string $other): mixed => $this->as($this->me, 'POST', "/defects/TST-D{$n}/relations", [
            'relation' => $relation,
            'other' => $other,
        ]);
        $relate(2, 'under', 'tst-d1')->assertCreated()->assertJsonPath('relations.0.key', 'TST-D1');
        $relate(1, 'over', 'TST-D2')->assertCreated();
        $relate(2, 'over', 'TST-D3')->assertCreated();
        $this->as($this->me, 'GET', '/defects/TST-D3')->assertJsonPath('relations.0.relation', 'under');
        $relate(1, 'under', 'TST-D3')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:parent-loop');
        $relate(3, 'under', 'TST-D4')->assertConflict()->assertJsonPath('parent', 'TST-D2');
        $relate(1, 'blocks', 'TST-D1')->assertConflict();
        $relate(1, 'blocks', 'TST-D9')->assertUnprocessable()->assertJsonPath('errors.other.0', 'There is no such defect in this project.');
        $relate(4, 'caused_by', 'TST-D1')->assertCreated();
        $relate(4, 'relates_to', 'TST-D3')->assertCreated();
        $relate(3, 'relates_to', 'TST-D4')->assertCreated();
        self::assertSame(
            ['over' => 'TST-D2', 'causes' => 'TST-D4'],
            array_column((array) $this->as($this->me, 'GET', '/defects/TST-D1')->json('relations'), 'key', 'relation'),
        );
        self::assertSame(
            [['caused_by', 'TST-D1'], ['relates_to', 'TST-D3']],
            array_map(
                static fn(array $r): array => [$r['relation'], $r['key']],
                (array) $this->as($this->me, 'GET', '/defects/TST-D4')->json('relations'),
            ),
        );
        $this->as($this->me, 'GET', '/projects/TST/defects?under=tst-d1')
            ->assertJsonPath('items.0.key', 'TST-D2')
            ->assertJsonCount(1, 'items');
        $close = fn(array $more): mixed => $this->as($this->me, 'POST', '/defects/TST-D1/moves', [
            'state' => 'closed',
            'note' => 'Old',
            ...$more,
        ]);
        $close([])
            ->assertConflict()
            ->assertJsonPath('children', ['TST-D2']);
        $close(['anyway' => true])->assertOk();
        $gone = ['relation' => 'relates_to', 'other' => 'TST-D4'];
        $this->as($this->me, 'DELETE', '/defects/TST-D3/relations', $gone)->assertOk()->assertJsonCount(1, 'relations');
        self::assertSame(
            [[null, 'TST-D3'], ['TST-D3', null]],
            array_values(
                array_map(
                    static fn(array $h): array => [$h['fields'][0]['was'], $h['fields'][0]['is']],
                    array_filter(
                        (array) $this->as($this->me, 'GET', '/defects/TST-D4')->json('history'),
                        static fn(array $h): bool => 'relates_to' === ($h['fields'][0]['field'] ?? ''),
                    ),
                ),
            ),
            'each end tells it once',
        );
    }

    public function test_who_watches_is_told_of_everything_until_they_watch_no_more(): void
    {
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'T'])->assertCreated();
        $this->as($dev, 'POST', '/defects/TST-D1/watchers')->assertCreated()->assertJsonPath('watchers.0.id', $dev->id);
        $this->as($dev, 'POST', '/defects/TST-D1/watchers', ['person_id' => $this->lead->id])->assertForbidden();
        $reader = $this->world->person('reader', Role::Reader);
        $this->as($this->me, 'POST', '/defects/TST-D1/watchers', ['person_id' => $reader->id])->assertUnprocessable();
        $this->as($this->me, 'POST', '/defects/TST-D1/moves', ['state' => 'accepted'])->assertOk();
        self::assertSame(1, $this->found($dev, 'moved TST-D1 to accepted'));
        $this->as($this->me, 'GET', '/projects/TST/defects?watcher=me')->assertJsonCount(0, 'items');
        $this->as($dev, 'GET', '/projects/TST/defects?watcher=me')->assertJsonCount(1, 'items');
        $this->as($dev, 'DELETE', '/defects/TST-D1/watchers')->assertOk()->assertJsonPath('watchers', []);
        $this->as($this->me, 'POST', '/defects/TST-D1/moves', ['state' => 'in_work'])->assertOk();
        self::assertSame(0, $this->found($dev, 'to in work'));
    }

    /**
     * @return string the id of a field
     */
    private function setUpLists(): string
    {
        $this->as($this->lead, 'PUT', '/projects/TST/lists/components', [
            'items' => [['name' => 'Boarding'], ['name' => 'Fares']],
        ])->assertOk();

        return (string) $this->as($this->lead, 'PUT', '/projects/TST/lists/defect-fields', [
            'fields' => [['name' => 'Found by', 'kind' => 'choice', 'choices' => ['us', 'a guest'], 'required' => true]],
        ])
            ->assertOk()
            ->assertJsonPath('defect_fields.0.required', false)
            ->json('defect_fields.0.id');
    }

    private function found(User $who, string $words): int
    {
        $texts = array_column((array) $this->as($who, 'GET', '/notices')->assertOk()->json('items'), 'text');

        return count(array_filter($texts, static fn(string $t): bool => str_contains($t, $words)));
    }
}
