<slot />
