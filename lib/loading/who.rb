module Loading
  # People and groups as one list of people with roles: groups expand to their members, those in groups of theirs too.
  module Who
    module_function

    # @param people [Array<Hash>] person_id and role
    # @param groups [Array<Hash>] group_id and role
    # @return [Hash{String => Symbol}] role by person, those only informed left out
    def roles(people, groups) = everybody(people, groups).reject { |_, role| role == :informed }

    # The same with those only informed.
    def everybody(people, groups)
      tree = groups.any? ? Groups.tree : nil
      by_group = groups.flat_map { |one| tree.people_of(one[:group_id]).map { |id| [id, one[:role].to_sym] } }
      named = people.map { |one| [one[:person_id], one[:role].to_sym] }
      Core::Invitation::Roles.settle(by_group, named)
    end
  end
end
