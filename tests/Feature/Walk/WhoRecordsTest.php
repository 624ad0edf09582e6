<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Who records an entry is one rule, by whichever way they come to it: beginning it, taking it over, judging it from the list.
 */
final class WhoRecordsTest extends FeatureTestCase
{
    /**
     * @return iterable<string, array{bool, bool}>
     */
    public static function policies(): iterable
    {
        foreach ([false, true] as $only) {
            foreach ([false, true] as $takes) {
                yield ($only ? 'only the assignee' : 'everybody') . ($takes ? ', opening takes' : '') => [$only, $takes];
            }
        }
    }

    #[DataProvider('policies')]
    public function test_every_way_lets_the_same_people_record(bool $only, bool $takes): void
    {
        $set = ['only_assignee_records' => $only, 'opening_takes' => $takes];
        $this->world->policies($set);
        $rule = Policies::fromArray($set);
        $other = $this->world->person('other');
        $people = [$this->world->person('me'), $this->world->person('boss', Role::Lead), $this->world->person('first', Role::Admin)];
        foreach ($people as $who) {
            $leads = $who !== $people[0];
            foreach (['nobody' => null, 'other' => $other, 'themselves' => $who] as $name => $assignee) {
                $allowed = $rule->letsRecord($assignee?->id, $who->id, $leads);
                foreach (['begin', 'take over', 'judge from the list'] as $way) {
                    $entry = $this->world->entry($assignee, 1);
                    $this->as($who, 'GET', "/entries/{$entry->id}")->assertJsonPath('may_record', $allowed);
                    $status = $this->record($way, $entry, $who);
                    self::assertSame($allowed, $status < 300, "{$way} by {$who->name}, assigned to {$name}: {$status}");
                    $attempts = $entry->refresh()->attempts()->where('tester_id', $who->id)->count();
                    self::assertSame($allowed ? 1 : 0, $attempts, 'nothing is left of what was refused');
                }
            }
        }
    }

    private function record(string $way, Entry $entry, User $who): int
    {
        if ('take over' === $way) {
            // Begun by a lead, whom the rule always lets.
            $attempt = $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/attempts")
                ->assertCreated()
                ->json('attempt.id');
            Entry::query()
                ->whereKey($entry->id)
                ->update(['assignee_id' => $entry->assignee_id]);

            return $this->as($who, 'POST', "/attempts/{$attempt}/take-over")->getStatusCode();
        }
        if ('begin' === $way) {
            return $this->as($who, 'POST', "/entries/{$entry->id}/attempts")->getStatusCode();
        }
        $answer = $this->as($who, 'POST', "/cycles/{$this->world->cycle->key}/list-verdicts", [
            'ids' => [$entry->id],
            'verdict' => 'pass',
            'note' => 'All fine here',
        ]);

        return $answer->isSuccessful() && [] === $answer->json('refused') ? 200 : 403;
    }
}
