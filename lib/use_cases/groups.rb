module UseCases
  # Groups of people; a group may be in a group, but not in itself.
  class Groups < Base
    # Everybody in a group, those in groups of its own too. @return [Array<String>] keys of people
    def self.people_of(group_id) = Tree.new.people_of(group_id)

    # All memberships, read once.
    class Tree
      def initialize
        rows = Records::GroupMember.pluck(:group_id, :person_id, :member_group_id)
        @people = Hash.new { |hash, id| hash[id] = [] }
        @groups = Hash.new { |hash, id| hash[id] = [] }
        rows.each { |group, person, inner| person ? @people[group] << person : @groups[group] << inner }
      end

      # A group and all groups it is in. @return [Array<String>]
      def above(group_id, seen = [])
        return seen if seen.include?(group_id)

        @groups
          .select { |_, inner| inner.include?(group_id) }
          .keys
          .reduce(seen + [group_id]) { |found, outer| above(outer, found) }
      end

      def people_of(group_id) = below(group_id).flat_map { |id| @people[id] }.uniq

      # A group and all groups in it.
      def below(group_id, seen = [])
        return seen if seen.include?(group_id)

        @groups[group_id].reduce(seen + [group_id]) { |found, inner| below(inner, found) }
      end
    end

    def list
      tree = Tree.new
      groups = Records::Group.order(:name, :id).includes(:members).to_a
      names =
        Records::Person
          .where(id: groups.flat_map { |group| group.members.map(&:person_id) }.compact.uniq)
          .pluck(:id, :name)
          .to_h
      titles = groups.to_h { |group| [group.id, group.name] }
      {groups: groups.map { |group| view(group, names, titles, tree) }}
    end

    def add(id:, name:, person_ids: [], group_ids: [])
      once(Records::Group, id) do
        Records::Group.create!(id: id, name: called(name, id))
        set_members(id, person_ids, group_ids)
      end
      show(id)
    end

    def change(id:, version:, name:, person_ids: [], group_ids: [])
      write do
        group = find(Records::Group, id)
        update(group, version, name: called(name, id), updated_at: now)
        set_members(id, person_ids, group_ids)
        SeriesMembers.new(by: by, clock: @clock).follow_group(id)
      end
      show(id)
    end

    def remove(id)
      write do
        group = Records::Group.find_by(id: id) or next
        if Records::SeriesGroup.exists?(group_id: id)
          raise Core::Conflict.new("This group is asked to a series. Take it off there first.", code: "in-use")
        end

        Records::GroupMember.where(member_group_id: id).delete_all
        group.destroy!
      end
    end

    def show(id) = list[:groups].find { |group| group[:id] == id } || raise(Core::NotFound)

    private

    def called(name, id)
      name = words(name, pointer: "/name", missing: "Give the group a name.")
      if Records::Group.where(name: name).where.not(id: id).exists?
        raise Core::Invalid.new("There is a group “#{name}” already.", pointer: "/name", code: "taken")
      end

      name
    end

    def set_members(id, person_ids, group_ids)
      refuse_unknown(Records::Person, person_ids, "/personIds")
      refuse_unknown(Records::Group, group_ids, "/groupIds")
      Records::GroupMember.where(group_id: id).delete_all
      person_ids.uniq.each { |person_id| Records::GroupMember.create!(group_id: id, person_id: person_id) }
      group_ids.uniq.each { |inner| Records::GroupMember.create!(group_id: id, member_group_id: inner) }
      circle = group_ids.find { |inner| Tree.new.below(inner).include?(id) } or return
      raise Core::Invalid.new(
        "“#{Records::Group.find(circle).name}” holds this group already, so this group cannot hold it.",
        pointer: "/groupIds"
      )
    end

    def refuse_unknown(records, ids, pointer)
      return if records.where(id: ids).count == ids.uniq.size

      raise Core::Invalid.new("Something chosen is not here any more. Choose again.", pointer: pointer)
    end

    def view(group, names, titles, tree)
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
