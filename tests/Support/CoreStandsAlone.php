<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/**
 * The rules of the job import nothing but PHP, PSR interfaces, themselves, and a package that only computes.
 */
final class CoreStandsAlone
{
    public function testCoreImportsNothingElse(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('LucidStep\Core'))
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('LucidStep\Core'),
                Selector::inNamespace('Psr'),
                Selector::inNamespace('SebastianBergmann\Diff'),
                Selector::isStandardClass(),
            )
            ->because('the rules of the job know neither framework nor interface');
    }
}
