module Api
  # Open hours, as hosts keep them and as visitors book times in them.
  class OpenHours < Resource
    on(:get, "/open-hours", "listOpenHours", may: :see_own) { json use(Views::OpenHours).list }

    on :post, "/open-hours", "makeOpenHours", may: :make_series do
      open_hours.create(**input)
      json shown(input[:id]), 201
    end

    on(:get, "/open-hours/:id", "showOpenHours", may: :keep_open_hours, of: :open_hours) { json shown }

    on :put, "/open-hours/:id", "changeOpenHours", may: :keep_open_hours, of: :open_hours do
      open_hours.change(id: params["id"], version: version, **input)
      json shown
    end

    on :delete, "/open-hours/:id", "removeOpenHours", may: :keep_open_hours, of: :open_hours do
      open_hours.remove(params["id"])
      status 204
    end

    on :post, "/open-hours/:id/link", "renewOpenHoursLink", may: :keep_open_hours, of: :open_hours do
      open_hours.renew_link(params["id"])
      json shown
    end

    on :get, "/open-hours-links/:id/:token", "openOpenHours", may: :answer_by_link, of: :open_hours_link do
      json page.times(link, **wanted)
    end

    on :post, "/open-hours-links/:id/:token/bookings", "bookTime", may: :answer_by_link, of: :open_hours_link do
      booking = bookings.book(link, **input, starts_at: instant(input[:starts_at]))
      json page.show(found(booking.id), known: booking.state != "held"), 201
    end

    on :get, "/booking-links/:id/:token", "openBooking", may: :answer_by_link, of: :booking_link do
      json page.show(booking)
    end

    on :put, "/booking-links/:id/:token", "moveBooking", may: :answer_by_link, of: :booking_link do
      bookings.move(booking, starts_at: instant(input[:starts_at]))
      json page.show(found(params["id"]))
    end

    on :delete, "/booking-links/:id/:token", "giveBookingBack", may: :answer_by_link, of: :booking_link do
      bookings.give_back(booking)
      json page.show(found(params["id"]))
    end

    on :get, "/booking-links/:id/:token/times", "openTimesToMoveTo", may: :answer_by_link, of: :booking_link do
      json page.times(booking.open_hours, **wanted, booking: booking)
    end

    on :post, "/booking-links/:id/:token/confirmation", "confirmBooking", may: :answer_by_link, of: :booking_link do
      bookings.confirm(booking)
      json page.show(found(params["id"]))
    end

    on :get, "/host-pages/:id/:token", "openHostPage", may: :answer_by_link, of: :host_page do
      json page.of_host(Loading::OpenHoursLink.open_host(params["id"], params["token"]))
    end

    private

    MONTH = /\A(20\d\d)-(0[1-9]|1[0-2])\z/

    def open_hours = use(UseCases::OpenHours)

    def bookings = UseCases::Bookings.new

    def page = use(Views::VisitorPage)

    def shown(id = params["id"]) = use(Views::OpenHours).show(id)

    def link = Loading::OpenHoursLink.open(params["id"], params["token"])

    def booking = Loading::OpenHoursLink.open_booking(params["id"], params["token"])

    # As it is afterwards.
    def found(id) = Loading::OpenHoursLink.booking(id)

    def instant(text) = Time.iso8601(text).utc

    # Month, zone and length of what a visitor looks at. @raise 400 when the month is none
    def wanted
      month, zone = params["month"], params["timeZone"]
      unless month.is_a?(String) && month.match?(MONTH) && zone.is_a?(String)
        problem 400, "shape", "Something is missing or not as it should be.",
          errors: [{pointer: "/month", detail: "Give a month such as 2026-12, and a zone."}]
      end
      {month: month, time_zone: zone, length_min: Integer(params["lengthMin"].to_s, 10, exception: false)}
    end
  end
end
