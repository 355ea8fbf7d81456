module Loading
  # Who is in which group.
  module Groups
    module_function

    # @return [Core::GroupTree] of all memberships
    def tree = Core::GroupTree.new(Records::GroupMember.pluck(:group_id, :person_id, :member_group_id))

    # Everybody in a group, those in groups of its own too. @return [Array<String>] keys of people
    def people_of(group_id) = tree.people_of(group_id)
  end
end
