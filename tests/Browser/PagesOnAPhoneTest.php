<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use LucidStep\Tests\Support\PagesTestCase;

final class PagesOnAPhoneTest extends PagesTestCase
{
    public function test_every_page_is_accessible_and_nothing_hangs_over(): void
    {
        $this->everyPage(390, 844);
    }
}
