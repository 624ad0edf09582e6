<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use Symfony\Component\HttpFoundation\Response;

/**
 * The short reasons behind verdicts.
 */
final class ReasonsTest extends FeatureTestCase
{
    use Walks;

    public function test_a_reason_is_one_of_the_projects_or_was_and_is_kept_as_the_list_has_it(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $attempt = $this->walked($this->world->entry($me), $me);
        /** @var \Closure(string, string): TestResponse<Response> $judge */
        $judge = fn(string $verdict, string $reason): TestResponse => $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 1,
            'verdict' => $verdict,
            'happened' => 'It broke.',
            'reason' => $reason,
        ]);
        $kept = fn(): string => (string) DB::table('step_results')->where('position', 1)->value('reason');
        $judge('blocked', 'data MISSING ')->assertOk();
        self::assertSame('Data missing', $kept());
        foreach ([['blocked', 'The cat sat on it'], ['fail', 'Data missing'], ['pass', 'Too slow']] as [$verdict, $reason]) {
            $said = (string) $judge($verdict, $reason)->assertUnprocessable()->json('errors.reason.0');
            self::assertStringContainsString("“{$reason}” is none of the project's reasons", $said);
        }
        self::assertSame('Data missing', $kept());
        // A device may know the list as it was: given, or written since.
        $write = fn(string ...$names) => $this->as($lead, 'PUT', '/projects/TST/lists/reasons-blocked', [
            'items' => array_map(static fn(string $n): array => ['name' => $n], $names),
        ])->assertOk();
        $write('Tide out', 'Nobody there');
        $write('Storm');
        foreach (['Storm', 'Tide out', 'No access'] as $reason) {
            $judge('blocked', $reason)->assertOk();
            self::assertSame($reason, $kept());
        }
        $judge('fail', '')->assertOk();
        $from = ['ids' => [$this->world->entry($me)->id], 'verdict' => 'blocked', 'note' => 'All of them', 'reason' => 'The cat'];
        $this->as($me, 'POST', '/cycles/TST-R1/list-verdicts', $from)
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['reason']]);
        $this->as($me, 'POST', '/cycles/TST-R1/list-verdicts', [...$from, 'reason' => 'storm'])->assertOk();
        self::assertSame('All of them (Storm)', DB::table('attempts')->where('from_list', true)->value('note'));
    }
}
