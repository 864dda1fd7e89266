<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Verjuicer\App\Platform\Form\FormInput;

/** A person's data from a form. */
final readonly class PersonForm
{
    /**
     * @param string $before prefix of the field names
     *
     * @return array{name: string, login: string, initials: string, languages: string}|null null with problems in the
     *     input
     */
    public static function read(FormInput $input, string $before = ''): ?array
    {
        $name = $input->text($before.'name', true, 60);
        $login = mb_strtolower($input->text($before.'login', true, 40));
        $initials = self::initials($input, $before.'initials');
        if ($login !== '' && preg_match('/^[a-z0-9][a-z0-9._@-]{1,39}$/D', $login) !== 1) {
            $input->refuse($before.'login', 'people.problem.login_form');
        }

        $languages = $input->text($before.'languages', false, 60);

        return $input->isGood()
            ? ['name' => $name, 'login' => $login, 'initials' => $initials, 'languages' => $languages]
            : null;
    }

    public static function initials(FormInput $input, string $field): string
    {
        $initials = mb_strtoupper($input->text($field, true));
        if ($initials !== '' && preg_match('/^\pL{1,4}\d?$/uD', $initials) !== 1) {
            $input->refuse($field, 'people.problem.initials_form');
        }

        return $initials;
    }
}
