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

    on :put, "/hostings/:id", "agreeToHost", may: :keep_hosting, of: :hosting do
      use(UseCases::Hosting).agree(id: params["id"], **input)
      json use(Views::OpenHours).list
    end

    on :delete, "/hostings/:id", "leaveHosting", may: :keep_hosting, of: :hosting do
      use(UseCases::Hosting).leave(params["id"])
      json use(Views::OpenHours).list
    end

    on :get, "/open-hours-links/:id/:token", "openOpenHours", may: :link, of: :open_hours do
      json page.times(link, **wanted)
    end

    on :post, "/open-hours-links/:id/:token/bookings", "bookTime", may: :link, of: :open_hours do
      booking = bookings.book(link, **input, starts_at: instant(input[:starts_at]))
      json page.show(found(booking.id), known: booking.state != "held"), 201
    end

    on :get, "/booking-links/:id/:token", "openBooking", may: :link, of: :booking do
      json page.show(link)
    end

    on :put, "/booking-links/:id/:token", "moveBooking", may: :link, of: :booking do
      bookings.move(link, starts_at: instant(input[:starts_at]))
      json page.show(found(params["id"]))
    end

    on :delete, "/booking-links/:id/:token", "giveBookingBack", may: :link, of: :booking do
      bookings.give_back(link)
      json page.show(found(params["id"]))
    end

    on :get, "/booking-links/:id/:token/times", "openTimesToMoveTo", may: :link, of: :booking do
      json page.times(link.open_hours, **wanted, booking: link)
    end

    on :post, "/booking-links/:id/:token/confirmation", "confirmBooking", may: :link, of: :booking do
      bookings.confirm(link)
      json page.show(found(params["id"]))
    end

    on :get, "/host-pages/:id/:token", "openHostPage", may: :link, of: :host do
      json page.of_host(link)
    end

    private

    def open_hours = use(UseCases::OpenHours)

    def bookings = UseCases::Bookings.new(sent: @sent)

    def page = use(Views::VisitorPage)

    def shown(id = params["id"]) = use(Views::OpenHours).show(id)

    # As it is afterwards.
    def found(id) = Loading::OpenHoursLink.booking(id)

    def instant(text) = Time.iso8601(text).utc

    # Month, zone and length of what a visitor looks at.
    def wanted = {month: query("month"), time_zone: query("timeZone"), length_min: number("lengthMin")}
  end
end
