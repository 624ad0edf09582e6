<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http;

/**
 * The script that observes: built with the interface (`resources/js/observer`), served under a name that stays.
 */
final class ObserverScript
{
    private const SOURCE = 'resources/js/observer/observe.ts';

    /**
     * @throws \RuntimeException when the interface is not built
     * @return string with nothing of its own in the page's global scope
     */
    public static function text(): string
    {
        $manifest = json_decode((string) file_get_contents(public_path('build/manifest.json')), true, 8, \JSON_THROW_ON_ERROR);
        $file = $manifest[self::SOURCE]['file'] ?? throw new \RuntimeException('The interface is not built.');

        return '(()=>{' . rtrim((string) file_get_contents(public_path("build/{$file}"))) . '})();';
    }
}
