module Records
  # A person or a whole group in a group.
  class GroupMember < Base
    belongs_to :group, class_name: "Records::Group"
  end
end
