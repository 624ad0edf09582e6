<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Models\Entry;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

final class ReadinessTest extends FeatureTestCase
{
    /**
     * Random cycles with conditions, windows, verdicts and stops: an entry alone is as ready as in the view of the whole.
     */
    public function test_property_an_entry_alone_is_as_ready_as_its_cycle_says(): void
    {
        mt_srand(42);
        $read = $this->app?->make(ReadCycle::class) ?? new ReadCycle();
        for ($n = 0; $n < 8; ++$n) {
            $world = new World('W' . \chr(65 + $n));
            $me = $world->person();
            $entries = $this->cycle($world, mt_rand(2, 9));
            foreach ($entries as $entry) {
                if (0 === mt_rand(0, 2)) {
                    $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
                    $verdict = ['pass', 'fail'][mt_rand(0, 1)];
                    if (null !== $attempt) {
                        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => $verdict, 'note' => 'As it looked']);
                        $this->as($me, 'POST', "/entries/{$entry->id}/stops");
                    }
                }
            }
            $cycles = Collection::make([$world->cycle->refresh()]);
            $held = $read->held($world->cycle->refresh());
            $whole = $read->readinessOf($cycles, $read->facts(array_map(static fn(Entry $e): string => $e->id, $entries)))->of;
            foreach ($entries as $entry) {
                $alone = $read->readiness($entry->refresh()->load('cycle'));
                self::assertEquals($whole[$entry->id], $alone, "cycle {$n}, entry {$entry->position}");
                self::assertSame('held' === $alone->is, \in_array($entry->id, $held, true), "cycle {$n}, entry {$entry->position}");
                self::assertEquals($read->readinessOf($cycles, $read->facts([$entry->id]))->of[$entry->id], $alone);
            }
            // The next one is the first ready one of mine or of nobody's that nobody else walks.
            $lines = $this->as($me, 'GET', '/cycles/' . $world->cycle->key . '/entries')->json('items');
            $free = array_filter($lines, static fn(array $e): bool => 'ready' === $e['readiness'] && null === $e['assignee']);
            self::assertSame(
                array_values($free)[0]['id'] ?? null,
                $this->as($me, 'GET', '/cycles/' . $world->cycle->key)->json('next_entry_id'),
            );
        }
    }

    public function test_starting_asks_as_much_of_a_long_cycle_as_of_a_short_one(): void
    {
        $rows = [];
        foreach ([3, 40] as $n => $long) {
            $world = new World("L{$n}");
            $me = $world->person();
            $entries = $this->cycle($world, $long);
            $first = $entries[0]->refresh()->load('cycle');
            $read = $this->app?->make(ReadCycle::class) ?? new ReadCycle();
            $rows[] = $this->queries(static fn() => $read->readiness($first));
            $this->as($me, 'POST', "/entries/{$first->id}/attempts")->assertSuccessful();
        }
        self::assertSame([2, 2], $rows);
    }

    /**
     * @return non-empty-list<Entry>
     */
    private function cycle(World $world, int $entries): array
    {
        $made = [$world->entry(null, 1)];
        for ($i = 1; $i < $entries; ++$i) {
            $window = [['not_before' => Carbon::now()->addHours(mt_rand(-2, 2))], ['not_after' => Carbon::now()->addHours(mt_rand(-1, 3))]];
            $entry = $world->entry(null, 1, $window[mt_rand(0, 4)] ?? []);
            foreach ($made as $before) {
                if (0 === mt_rand(0, 3)) {
                    $world->needs($entry, $before, ['after', 'only_if_passed'][mt_rand(0, 1)]);
                }
            }
            $made[] = $entry;
        }

        return $made;
    }
}
