module Records
  class Group < Base
    has_many :members, class_name: "Records::GroupMember", dependent: :delete_all
  end
end
