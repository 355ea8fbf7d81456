module Views
  # Groups of people, with everybody who is in them by other groups.
  class Groups < Base
    def list
      tree = Loading::Groups.tree
      groups = Records::Group.order(:name, :id).includes(:members).to_a
      names =
        Records::Person
          .where(id: groups.flat_map { |group| group.members.map(&:person_id) }.compact.uniq)
          .pluck(:id, :name)
          .to_h
      titles = groups.to_h { |group| [group.id, group.name] }
      {groups: groups.map { |group| row(group, names, titles, tree) }}
    end

    def show(id) = list[:groups].find { |group| group[:id] == id } || raise(Core::NotFound)

    private

    def row(group, names, titles, tree)
      {
        id: group.id,
        name: group.name,
        people:
          group
            .members
            .filter_map { |member| member.person_id && {id: member.person_id, name: names[member.person_id]} }
            .sort_by { |one| one[:name] },
        groups:
          group
            .members
            .filter_map do |member|
              member.member_group_id && {id: member.member_group_id, name: titles[member.member_group_id]}
            end
            .sort_by { |one| one[:name] },
        all_person_ids: tree.people_of(group.id),
        version: group.lock_version
      }
    end
  end
end
