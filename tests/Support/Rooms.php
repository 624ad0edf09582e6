<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/**
 * Who may know whom: HTTP knows actions and queries, these know models, models know the core; areas know each other in one
 * direction only.
 */
final class Rooms
{
    private const APP = 'LucidStep\App';

    /** An area knows those before it, never one behind it. */
    private const AREAS = [
        'Mail',
        'Evidence',
        'Notices',
        'Setup',
        'People',
        'Defects',
        'Casebook',
        'Sessions',
        'Cycles',
        'Walk',
        'Today',
        'Search',
    ];

    public function testHttpIsKnownToNobody(): Rule
    {
        return PHPat::rule()
            ->classes(self::rooms('Actions|Queries|Data|Commands|Jobs|Exchange|Policies'), Selector::inNamespace(self::APP . '\Models'))
            ->shouldNotDependOn()
            ->classes(self::rooms('Http'), Selector::inNamespace(self::APP . '\Support\Http'))
            ->because('an action answers a value; what HTTP makes of it is the controller\'s');
    }

    public function testValuesReadNothing(): Rule
    {
        return PHPat::rule()
            ->classes(self::rooms('Data'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('Illuminate'),
                self::rooms('Actions|Commands|Jobs|Exchange'),
                Selector::inNamespace(self::APP . '\Support\Access'),
            )
            ->because('a value is made by a query, which has read all of it');
    }

    public function testControllersAndResourcesReadNothing(): Rule
    {
        return PHPat::rule()
            ->classes(self::rooms('Http'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Illuminate\Database\Query'), Selector::classname('Illuminate\Support\Facades\DB'))
            ->because('all reading of more than one row and all SQL stand in queries and actions');
    }

    public function testModelsKnowNoArea(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace(self::APP . '\Models'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace(self::APP . '\Areas'))
            ->because('models hold rows, casts and relations, and no rules');
    }

    public function testWhatAreasShareKnowsNoArea(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace(self::APP . '\Support'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace(self::APP . '\Areas'))
            ->because('support is named for one idea and stands below all areas');
    }

    /**
     * @return iterable<string, Rule>
     */
    public function testAreasKnowEachOtherInOneDirection(): iterable
    {
        foreach (self::AREAS as $at => $area) {
            $later = array_slice(self::AREAS, $at + 1);
            if ([] === $later) {
                continue;
            }
            yield $area => PHPat::rule()
                ->classes(Selector::inNamespace(self::APP . "\Areas\\{$area}"))
                ->shouldNotDependOn()
                ->classes(
                    ...array_map(static fn(string $l): SelectorInterface => Selector::inNamespace(self::APP . "\Areas\\{$l}"), $later),
                )
                ->because('areas know each other in one direction only');
        }
    }

    private static function rooms(string $names): SelectorInterface
    {
        return Selector::inNamespace('/^LucidStep\\\\App\\\\Areas\\\\\w+\\\\(' . $names . ')(\\\\|$)/', true);
    }
}
