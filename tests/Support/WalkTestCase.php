<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Facebook\WebDriver\WebDriverKeys as Key;

/**
 * Browser tests that walk.
 */
abstract class WalkTestCase extends BrowserTestCase
{
    protected function begin(): Tester
    {
        return $this->tester()->signIn('tobias')->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5');
    }

    /**
     * The browser shares this very tab without asking.
     */
    protected function sharing(Tester $me): void
    {
        $me->script(
            'const m = navigator.mediaDevices; const real = m.getDisplayMedia.bind(m); m.getDisplayMedia = () => ' .
                'real({ video: true, preferCurrentTab: true });',
        );
    }

    protected function stored(string $sha256): string
    {
        return getenv('LARAVEL_STORAGE_PATH') . '/app/private/evidence/' . substr($sha256, 0, 2) . "/{$sha256}";
    }
}
