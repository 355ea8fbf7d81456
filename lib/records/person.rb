module Records
  class Person < Base
    has_secure_password validations: false
    attribute :working_hours, :json
    attribute :mail_without, :json

    has_many :days_off, class_name: "Records::DayOff", dependent: :delete_all
    has_many :calendars, class_name: "Records::Calendar"
    has_many :memberships, class_name: "Records::SeriesMember"

    def zone = Core::Zone[time_zone]

    # Whether mail goes to them at all.
    def reachable? = !Core::MailAddress.none?(email)

    def to_reader = Core::Sheet::LineReader::Person.new(id: id, name: name)

    def mail_wish = Core::MailWish.new(digest: mail_digest, without: mail_without || [])
  end
end
