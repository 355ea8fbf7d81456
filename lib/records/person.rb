module Records
  class Person < Base
    has_secure_password validations: false
    has_many :memberships, class_name: "Records::SeriesMember"

    def to_reader = Core::Sheet::LineReader::Person.new(id: id, name: name)
  end
end
