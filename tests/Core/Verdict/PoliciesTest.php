<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Verdict;

use LucidStep\Core\Verdict\Policies;
use PHPUnit\Framework\TestCase;

final class PoliciesTest extends TestCase
{
    public function test_who_may_record_an_entry(): void
    {
        $lets = static function (bool $only, bool $taking, ?string $assignee, bool $leads): bool {
            $policies = Policies::fromArray(['only_assignee_records' => $only, 'opening_takes' => $taking]);

            return $policies->letsRecord($assignee, 'me', $leads);
        };
        foreach ([true, false] as $taking) {
            self::assertTrue($lets(false, $taking, 'you', false), 'anybody, where it is not only its assignee');
            self::assertTrue($lets(true, $taking, 'me', false));
            self::assertFalse($lets(true, $taking, 'you', false));
            self::assertTrue($lets(true, $taking, 'you', true), 'leads always');
            self::assertSame($taking, $lets(true, $taking, null, false), "nobody's, where opening takes it");
        }
    }
}
